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
