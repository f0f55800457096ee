import { openDB, type DBSchema, type IDBPDatabase } from "idb";

import type { Problem } from "../api/client";

/** Road is what is sent in a row: each kind of entry has its own. */
export type Road = "ticks" | "proof" | "comments" | "photos";

/** Waits is something that was entered here and that the server does not have yet. */
export interface Waits {
  /** Its place in the row. */
  seq?: number;
  /** Its name, which this device made: sent twice it counts once. */
  id: string;
  road: Road;
  job: string;
  /** Who entered it, by id: it is sent under nobody else's name. */
  person?: string | undefined;
  /** What it is called in a list. */
  named: string;
  at: string;
  body: Record<string, unknown>;
  blob?: Blob;
  /** Why the server cannot keep it; then it is not sent again. */
  refused?: Problem[];
  /** This browser could not keep it: it is in this window alone. */
  loose?: boolean;
}

/** Along is a job that was taken along. */
export interface Along {
  id: string;
  number: number;
  title: string;
  at: string;
  /** By itself, as it stands in a bay today. */
  ofDay: boolean;
  /** So many characters were kept of it. */
  size: number;
}

/** Kept is an answer of the server, as it was last. */
export interface Kept {
  path: string;
  person: string;
  text: string;
  at: string;
}

/** Picture is a photograph on this device. */
export interface Picture {
  id: string;
  job: string;
  blob: Blob;
}

/** Known is what the core answered on this device, by what it was asked. */
export interface Known {
  name: string;
  text: string;
  at: string;
}

interface Schema extends DBSchema {
  kept: { key: string; value: Kept };
  along: { key: string; value: Along };
  pictures: { key: string; value: Picture; indexes: { job: string } };
  waits: { key: number; value: Waits };
  drafts: { key: string; value: string };
  known: { key: string; value: Known; indexes: { at: string } };
}

export type DB = IDBPDatabase<Schema>;

let opened: Promise<DB> | undefined;

/** db is what this browser keeps of the work; it fails where the browser keeps nothing. */
export function db(): Promise<DB> {
  opened ??= open();
  opened.catch(() => (opened = undefined));
  return opened;
}

/** open is asynchronous as a whole: some browsers refuse at once. */
async function open(): Promise<DB> {
  return openDB<Schema>("epitrope", 2, {
    upgrade(made, was) {
      made.createObjectStore("known", { keyPath: "name" }).createIndex("at", "at");
      if (was >= 1) return;
      made.createObjectStore("kept", { keyPath: "path" });
      made.createObjectStore("along", { keyPath: "id" });
      made.createObjectStore("pictures", { keyPath: "id" }).createIndex("job", "job");
      made.createObjectStore("waits", { keyPath: "seq", autoIncrement: true });
      made.createObjectStore("drafts");
    },
    blocking: (_at, _to, event) => (event.target as IDBDatabase).close(),
    terminated: () => (opened = undefined),
  });
}
