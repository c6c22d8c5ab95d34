ALTER TABLE "source" ALTER COLUMN "ranges" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "source" DROP COLUMN "universes";--> statement-breakpoint
ALTER TABLE "source" DROP COLUMN "priority";