ALTER TABLE "heads" ADD COLUMN "batch" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "heads" ADD COLUMN "snapshot_bytes" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "heads" ADD COLUMN "logged_bytes" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "log" ADD COLUMN "form" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
UPDATE "heads" SET "batch" = coalesce((SELECT "log"."batch" FROM "log" WHERE "log"."version" = "heads"."version" AND "log"."sequence" = "heads"."sequence"), "version");
