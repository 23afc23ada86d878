CREATE TABLE "digests" (
	"member" text PRIMARY KEY NOT NULL,
	"day" text NOT NULL
);
