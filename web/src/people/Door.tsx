import { Modal } from "@mantine/core";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useLocation } from "@tanstack/react-router";
import { lazy, Suspense, useEffect, useMemo, useState, type ReactNode } from "react";

import { onOut } from "../api/client";
import { comesIn } from "../offline/start";
import * as journal from "../job/journal";
import { keep, recall } from "../ui/stored";
import { meQuery, type Me } from "../ui/useMe";
import { Waiting } from "../ui/Wait";
import css from "./people.module.css";

const SignIn = lazy(() => import("./SignIn"));
const Tablet = lazy(() => import("./Tablet"));
const DemoIn = lazy(() => import("./DemoIn"));

/** last is where it is kept who was signed in here last. */
const last = "epitrope:last";

/** open are the pages that need nobody to be signed in: a link opens them. */
const open = ["/join", "/reset", "/handed", "/trust"];

/** Door lets whoever is signed in to what is in it; the others sign in first. Who is signed out meanwhile keeps the page, with all that was typed. */
export function Door({ children }: { children: ReactNode }) {
  const queries = useQueryClient();
  const { pathname } = useLocation();
  const me = useQuery(meQuery);
  const [was, setWas] = useState<string | null>(null);
  const person = me.data?.person?.id;
  if (person && was === null) setWas(person);
  // Where the server does not say who is here, what was typed here is theirs who was here last.
  const whose = person ?? was ?? recall(last) ?? "";
  useEffect(() => {
    if (person) keep(last, person);
    if (me.data) void comesIn(person, me.data.tablet);
  }, [person, me.data]);
  // Before what is in the door is drawn for the first time: it looks for what was left.
  useMemo(() => journal.under(whose), [whose]);
  useEffect(() => onOut(() => void queries.invalidateQueries({ queryKey: ["me"] })), [queries]);

  /** come takes in who signed in; another person gets a page of their own. */
  const come = (now: Me) => {
    if (was && now.person?.id !== was) {
      window.location.reload();
      return;
    }
    queries.setQueryData(["me"], now);
    void queries.invalidateQueries({ predicate: (q) => q.queryKey[0] !== "me" });
  };
  if (open.includes(pathname)) return children;
  if (!me.data) return me.errorUpdateCount > 0 ? children : <Waiting what="Opening" />; // the server is away: the page says so, and keeps what is typed
  const wait = <Waiting what="Opening" />;
  if (me.data.person) {
    if (person !== was) return <Another />;
    return children;
  }
  if (me.data.tablet) {
    return (
      <Suspense fallback={wait}>
        <Tablet me={me.data} come={come} />
      </Suspense>
    );
  }
  if (was) {
    return (
      <>
        {children}
        <Modal.Root opened onClose={() => undefined} size="md">
          <Modal.Overlay />
          <Modal.Content aria-label="You are signed out here">
            <Modal.Body>
              <h2 className={css.modalTitle}>You are signed out here</h2>
              <p className="soft">You signed out elsewhere, were let go, or it was too long ago. What you typed is kept in this browser, under your name; sign in and go on.</p>
              <Suspense fallback={wait}>
                <SignIn me={me.data} come={come} within />
              </Suspense>
            </Modal.Body>
          </Modal.Content>
        </Modal.Root>
      </>
    );
  }
  return <Suspense fallback={wait}>{me.data.demo ? <DemoIn me={me.data} come={come} /> : <SignIn me={me.data} come={come} />}</Suspense>;
}

/** Another is somebody else than before in the same page: it begins anew, so that nothing of one is the other's. */
function Another() {
  useEffect(() => window.location.reload(), []);
  return <Waiting what="Opening" />;
}
