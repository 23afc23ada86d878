CREATE TABLE "live_alerts" (
	"id" text PRIMARY KEY NOT NULL,
	"run" text NOT NULL,
	"version" text NOT NULL,
	"element" text NOT NULL,
	"target" jsonb NOT NULL,
	"share" double precision NOT NULL,
	"at" double precision NOT NULL,
	"member" text,
	"reason" text
);
--> statement-breakpoint
CREATE INDEX "live_alerts_run" ON "live_alerts" USING btree ("run");