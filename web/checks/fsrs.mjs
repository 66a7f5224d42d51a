// Plays hearings through a library of FSRS-6 that is not ours. Reads from
// standard input a list of histories, each a list of [days since the hearing
// before, grade]; prints for each hearing [stability, difficulty, retrievability
// ten days later].
import { readFileSync } from "node:fs";
import { FSRSAlgorithm } from "ts-fsrs";

const fsrs = new FSRSAlgorithm({});
const histories = JSON.parse(readFileSync(0, "utf8"));
console.log(
  JSON.stringify(
    histories.map((history) => {
      let state = null;
      return history.map(([days, grade]) => {
        state = fsrs.next_state(state, days, grade);
        return [state.stability, state.difficulty, fsrs.forgetting_curve(10, state.stability)];
      });
    }),
  ),
);
