CREATE TABLE "control" (
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
