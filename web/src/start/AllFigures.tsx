// Every figure of a new corner, beginning with what the first run was answered.
import { useState } from "react";

import { AnswersPage } from "../answers/AnswersPage";
import { answersOf, recall } from "./firstRun";

export function AllFigures() {
  const [begin] = useState(() => answersOf(recall().run, false));
  return <AnswersPage begin={begin} />;
}
