ALTER TABLE "directory" ADD COLUMN "headcount" double precision;--> statement-breakpoint
ALTER TABLE "directory" ADD COLUMN "cost_per_hour" double precision;--> statement-breakpoint
ALTER TABLE "directory" ADD COLUMN "hours_per_week" double precision;