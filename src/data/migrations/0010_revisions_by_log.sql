ALTER TABLE "revisions" ALTER COLUMN "model" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "revisions" ADD COLUMN "built_on" integer;