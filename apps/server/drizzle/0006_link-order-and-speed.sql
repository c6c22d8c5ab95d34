ALTER TABLE "link" ADD COLUMN "starts_first" text DEFAULT 'sender' NOT NULL;--> statement-breakpoint
ALTER TABLE "model" ADD COLUMN "speed" integer DEFAULT 100 NOT NULL;