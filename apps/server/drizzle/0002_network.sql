CREATE TABLE "model" (
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
