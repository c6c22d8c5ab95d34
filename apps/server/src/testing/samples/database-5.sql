CREATE TABLE "edit" (
	"seq" integer PRIMARY KEY NOT NULL,
	"at" bigint NOT NULL,
	"author" text NOT NULL,
	"sentence" text NOT NULL,
	"changes" jsonb NOT NULL,
	"undoes" integer
);
--> statement-breakpoint
CREATE TABLE "lamp" (
	"id" text PRIMARY KEY NOT NULL,
	"rev" integer NOT NULL,
	"number" integer NOT NULL,
	"name" text NOT NULL,
	"type_id" text NOT NULL,
	"mode" text NOT NULL,
	"universe" integer NOT NULL,
	"channel" integer NOT NULL,
	"place_id" text,
	"x" double precision NOT NULL,
	"y" double precision NOT NULL,
	"z" double precision NOT NULL
);
--> statement-breakpoint
CREATE TABLE "machine" (
	"id" text PRIMARY KEY NOT NULL,
	"rev" integer NOT NULL,
	"name" text NOT NULL,
	"model" text NOT NULL,
	"address" text NOT NULL,
	"place_id" text,
	"ports" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "place" (
	"id" text PRIMARY KEY NOT NULL,
	"rev" integer NOT NULL,
	"name" text NOT NULL,
	"order" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "show" (
	"id" text PRIMARY KEY NOT NULL,
	"rev" integer NOT NULL,
	"name" text NOT NULL,
	"about" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "source" (
	"id" text PRIMARY KEY NOT NULL,
	"rev" integer NOT NULL,
	"name" text NOT NULL,
	"address" text NOT NULL,
	"universes" jsonb NOT NULL,
	"priority" integer NOT NULL,
	"pennant" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "fixture_type" (
	"id" text PRIMARY KEY NOT NULL,
	"rev" integer NOT NULL,
	"maker" text NOT NULL,
	"name" text NOT NULL,
	"modes" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "universe" (
	"id" text PRIMARY KEY NOT NULL,
	"rev" integer NOT NULL,
	"number" integer NOT NULL,
	"name" text NOT NULL,
	"protocol" text NOT NULL,
	"wire" integer NOT NULL,
	"merge" text NOT NULL
);
CREATE TABLE "pixel_run" (
	"id" text PRIMARY KEY NOT NULL,
	"rev" integer NOT NULL,
	"number" integer NOT NULL,
	"name" text NOT NULL,
	"count" integer NOT NULL,
	"order" text NOT NULL,
	"bits" integer NOT NULL,
	"per_universe" integer NOT NULL,
	"whole" boolean NOT NULL,
	"start" jsonb NOT NULL,
	"reversed" boolean NOT NULL,
	"nulls" integer NOT NULL,
	"nulls_sent" boolean NOT NULL,
	"machine_id" text,
	"output" integer,
	"place_id" text,
	"from" jsonb NOT NULL,
	"to" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "lamp" ADD COLUMN "blocks" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "lamp" ADD COLUMN "groups" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "lamp" ADD COLUMN "tag" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "lamp" ADD COLUMN "twin" text;--> statement-breakpoint
ALTER TABLE "lamp" ADD COLUMN "locked" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "machine" ADD COLUMN "controller" jsonb;--> statement-breakpoint
ALTER TABLE "show" ADD COLUMN "file" text;--> statement-breakpoint
ALTER TABLE "fixture_type" ADD COLUMN "kind" text DEFAULT 'other' NOT NULL;--> statement-breakpoint
ALTER TABLE "fixture_type" ADD COLUMN "file" text;CREATE TABLE "model" (
	"id" text PRIMARY KEY NOT NULL,
	"rev" integer NOT NULL,
	"maker" text NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"ports" integer NOT NULL,
	"connector" text NOT NULL,
	"directions" jsonb NOT NULL,
	"protocols" jsonb NOT NULL,
	"merges" jsonb NOT NULL,
	"losses" jsonb NOT NULL,
	"starts" jsonb NOT NULL,
	"rdm" boolean NOT NULL,
	"fixed_value" boolean NOT NULL,
	"copies" boolean NOT NULL,
	"rate" integer NOT NULL,
	"universes" integer,
	"sources" integer NOT NULL,
	"parameters" integer,
	"base" integer NOT NULL,
	"remote" boolean NOT NULL,
	"ip_prog" boolean NOT NULL,
	"per_page" integer NOT NULL,
	"groups" integer
);
--> statement-breakpoint
CREATE TABLE "network" (
	"id" text PRIMARY KEY NOT NULL,
	"rev" integer NOT NULL,
	"name" text NOT NULL,
	"network" text NOT NULL,
	"prefix" integer NOT NULL,
	"dhcp" boolean NOT NULL,
	"stand_in" boolean NOT NULL,
	"ranges" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "snapshot" (
	"id" text PRIMARY KEY NOT NULL,
	"rev" integer NOT NULL,
	"name" text NOT NULL,
	"at" text NOT NULL,
	"machine_id" text,
	"about" text NOT NULL,
	"ports" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "machine" ADD COLUMN "kind" text DEFAULT 'node' NOT NULL;--> statement-breakpoint
ALTER TABLE "machine" ADD COLUMN "model_id" text;--> statement-breakpoint
ALTER TABLE "machine" ADD COLUMN "notes" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "machine" ADD COLUMN "firmware" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "machine" ADD COLUMN "mode" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "machine" ADD COLUMN "serial" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "machine" ADD COLUMN "locked" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "machine" ADD COLUMN "interfaces" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "machine" ADD COLUMN "ticks" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
UPDATE "machine" SET
  "kind" = CASE WHEN "controller" IS NULL OR "controller" = 'null'::jsonb THEN 'node' ELSE 'pixel controller' END,
  "notes" = "model",
  "interfaces" = jsonb_build_array(jsonb_build_object('name', '', 'mac', '', 'addresses',
    CASE WHEN "address" = '' THEN '[]'::jsonb
    ELSE jsonb_build_array(jsonb_build_object('way', 'fixed', 'address', "address", 'prefix', 8)) END)),
  "ports" = (SELECT coalesce(jsonb_agg(
    '{"label":"","fixed":255,"rate":40,"rdm":false,"copyOf":null,"merge":"htp","loss":{"kind":"hold","after":0,"over":0},"start":"wait","priority":100}'::jsonb
    || (one - 'direction') || jsonb_build_object('use', one->'direction')), '[]'::jsonb) FROM jsonb_array_elements("ports") AS one);
ALTER TABLE "machine" DROP COLUMN "model";--> statement-breakpoint
ALTER TABLE "machine" DROP COLUMN "address";CREATE TABLE "control" (
	"id" text PRIMARY KEY NOT NULL,
	"rev" integer NOT NULL,
	"name" text NOT NULL,
	"wire" jsonb NOT NULL,
	"channel" integer NOT NULL,
	"does" text NOT NULL,
	"target" jsonb NOT NULL,
	"threshold" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "link" (
	"id" text PRIMARY KEY NOT NULL,
	"rev" integer NOT NULL,
	"name" text NOT NULL,
	"source_id" text NOT NULL,
	"machine_id" text NOT NULL,
	"protocol" text NOT NULL,
	"sender_base" integer NOT NULL,
	"receiver_base" integer NOT NULL,
	"lines" jsonb NOT NULL,
	"well" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "route" (
	"id" text PRIMARY KEY NOT NULL,
	"rev" integer NOT NULL,
	"name" text NOT NULL,
	"order" integer NOT NULL,
	"inputs" jsonb NOT NULL,
	"merge" text NOT NULL,
	"returns" text NOT NULL,
	"out" jsonb NOT NULL,
	"interface" text NOT NULL,
	"delivery" text NOT NULL,
	"addresses" jsonb NOT NULL,
	"priority" integer NOT NULL,
	"master" integer NOT NULL,
	"parts" jsonb NOT NULL,
	"comes_back" boolean NOT NULL
);
--> statement-breakpoint
ALTER TABLE "source" ALTER COLUMN "universes" SET DEFAULT '[]'::jsonb;--> statement-breakpoint
ALTER TABLE "source" ALTER COLUMN "priority" SET DEFAULT 100;--> statement-breakpoint
ALTER TABLE "source" ADD COLUMN "ranges" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
UPDATE "source" SET "ranges" = (
  SELECT coalesce(jsonb_agg('{"to":null,"interface":"","delivery":"usual","addresses":[],"rate":44,"slotPriority":false,"on":true,"whenIdle":true,"note":""}'::jsonb
    || jsonb_build_object('from', first, 'count', many, 'priority', "priority") ORDER BY first), '[]'::jsonb)
  FROM (
    SELECT min(one) AS first, count(*) AS many FROM (
      SELECT one, one - row_number() OVER (ORDER BY one) AS run
      FROM (SELECT DISTINCT value::integer AS one FROM jsonb_array_elements_text("universes")) AS each
    ) AS numbered GROUP BY run
  ) AS runs
);
ALTER TABLE "source" ALTER COLUMN "ranges" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "source" DROP COLUMN "universes";--> statement-breakpoint
ALTER TABLE "source" DROP COLUMN "priority";ALTER TABLE "link" ADD COLUMN "starts_first" text DEFAULT 'sender' NOT NULL;--> statement-breakpoint
ALTER TABLE "model" ADD COLUMN "speed" integer DEFAULT 100 NOT NULL;