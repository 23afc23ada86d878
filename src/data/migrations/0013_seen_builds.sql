ALTER TABLE "build_copies" ADD COLUMN "seen" text;--> statement-breakpoint
ALTER TABLE "build_copies" ADD COLUMN "seen_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "build_copies" ADD COLUMN "seen_sequence" integer;