ALTER TABLE "briefs" ADD COLUMN "summary" jsonb;--> statement-breakpoint
ALTER TABLE "briefs" ADD COLUMN "summary_holds" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "heads" ADD COLUMN "summary" jsonb;--> statement-breakpoint
ALTER TABLE "heads" ADD COLUMN "summary_holds" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "heads" ADD COLUMN "damaged" text;--> statement-breakpoint
CREATE INDEX "elements_called" ON "elements" USING btree ("called");--> statement-breakpoint
CREATE INDEX "handoffs_version" ON "handoffs" USING btree ("version");--> statement-breakpoint
CREATE INDEX "versions_process" ON "versions" USING btree ("process");--> statement-breakpoint
CREATE INDEX "waivers_version" ON "waivers" USING btree ("version");--> statement-breakpoint
ALTER TABLE "uses" DROP COLUMN "element_name";