import type { Spoken } from "..";
import type { en } from "../en";
import type { Translated } from "../translated";
import { brief } from "./brief";
import { check } from "./check";
import { compare } from "./compare";
import { data } from "./data";
import { decisions } from "./decisions";
import { diagram } from "./diagram";
import { directory } from "./directory";
import { evidence } from "./evidence";
import { forecast } from "./forecast";
import { handoff } from "./handoff";
import { home } from "./home";
import { live } from "./live";
import { members } from "./members";
import { sentences } from "./sentences";
import { sharing } from "./sharing";
import { shell } from "./shell";
import { steps } from "./steps";
import { tray } from "./tray";

/** Every text of the interface, in German. */
const words: Translated<typeof en> = {
  ...shell,
  ...home,
  ...brief,
  ...steps,
  ...diagram,
  ...tray,
  ...check,
  ...forecast,
  ...compare,
  ...data,
  ...decisions,
  ...handoff,
  ...live,
  ...evidence,
  ...directory,
  ...members,
  ...sharing,
};

export const spoken: Spoken = { language: "de", words, sentences };
