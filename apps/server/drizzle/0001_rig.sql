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
ALTER TABLE "fixture_type" ADD COLUMN "file" text;