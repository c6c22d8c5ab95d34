ALTER TABLE "machine" DROP COLUMN "model";--> statement-breakpoint
ALTER TABLE "machine" DROP COLUMN "address";