import { useRouterState } from "@tanstack/react-router";
import { useEffect, useRef } from "react";
import type { Schemas } from "../api/client";
import { titleOf } from "./places";

// Title names the page in its tab, and says of a new one where it is: the focus goes to its
// heading (WCAG 2.2, 2.4.2 and 2.4.3).
export function Title({ day }: { day: Schemas["DayView"] }) {
  const path = useRouterState({ select: (s) => s.location.pathname });
  const id = /^\/students\/([^/]+)/.exec(path)?.[1];
  const student = day.students.find((s) => s.id === id);
  useHeading(path);
  return <title>{titleOf(path, day.studio, student && `${student.firstName} ${student.familyName}`.trim())}</title>;
}

const patience = 3000; // ms in which the page of a slow connection may still come

function useHeading(path: string) {
  const last = useRef(path);
  useEffect(() => {
    if (last.current === path) return;
    last.current = path;
    const until = Date.now() + patience;
    let timer: ReturnType<typeof setTimeout>;
    const look = () => {
      const heading = document.querySelector<HTMLElement>("#content :is(h1, h2)");
      if (heading && !document.querySelector("#content [aria-busy=true]")) {
        if (document.activeElement?.closest("#content input, [role=dialog]")) return; // the page has put it somewhere
        heading.tabIndex = -1;
        heading.focus({ preventScroll: true });
      } else if (Date.now() < until) timer = setTimeout(look, 50);
    };
    timer = setTimeout(look, 0);
    return () => clearTimeout(timer);
  }, [path]);
}
