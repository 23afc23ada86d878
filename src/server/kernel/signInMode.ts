/** Whether members sign in; else, to try things, anybody says who they are (`LANE_SIGN_IN=on`). */
export const signsIn = (env: NodeJS.ProcessEnv = process.env): boolean => env.LANE_SIGN_IN === "on";

/** What the cookie of a session is called; over https, something stands before it. */
export const cookiePrefix = "lane";
export const sessionCookie = `${cookiePrefix}.session_token`;
