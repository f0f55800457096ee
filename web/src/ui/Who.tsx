import { Menu, useComputedColorScheme, useMantineColorScheme } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";

import { api, take } from "../api/client";
import { forget } from "../offline/along";
import { roleWords, useMe, type Me } from "./useMe";
import css from "./Who.module.css";

/** short is a name where there is no room: its first letters. */
const short = (name: string) => name.split(/\s+/).map((w) => w[0]?.toUpperCase() ?? "").slice(0, 2).join("");

/** Who is whoever is signed in, in the bar of every page, with what is theirs. */
export function Who() {
  const me = useMe();
  const queries = useQueryClient();
  const { setColorScheme } = useMantineColorScheme();
  const dark = useComputedColorScheme("light") === "dark";
  const taken = (now: Me) => {
    queries.setQueryData(["me"], now);
    void queries.invalidateQueries({ predicate: (q) => q.queryKey[0] !== "me" });
  };
  const out = useMutation({ mutationFn: () => take(api.POST("/api/door/out")).then(forget), onSuccess: () => window.location.assign("/") });
  const leave = useMutation({ mutationFn: () => take(api.POST("/api/tablet/leave")), onSuccess: (now) => queries.setQueryData(["me"], now) });
  const become = useMutation({ mutationFn: (person: string) => take(api.POST("/api/door/demo", { body: { person } })), onSuccess: taken });
  if (!me?.person) return null;
  const { person } = me;
  return (
    <Menu position="bottom-end" width={250} classNames={{ dropdown: css.menu, label: css.label }}>
      <Menu.Target>
        <button type="button" className={css.who}>
          <span className={css.name}>{person.name}</span>
          <span className={css.short}>{short(person.name)}</span>
          <span className="hidden">, {roleWords[person.role]}: account and people</span>
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Label>
          {person.name}, {roleWords[person.role]}, {me.workshop}
        </Menu.Label>
        {me.may.includes("self") && (
          <Menu.Item component={Link} to="/account">
            Your account
          </Menu.Item>
        )}
        <Menu.Item component={Link} to="/along">
          On this device
        </Menu.Item>
        <Menu.Item component={Link} to="/people">
          People
        </Menu.Item>
        {me.may.includes("trail") && (
          <Menu.Item component={Link} to="/trail">
            Who did what
          </Menu.Item>
        )}
        <Menu.Item onClick={() => setColorScheme(dark ? "light" : "dark")}>{dark ? "Light screen" : "Dark screen"}</Menu.Item>
        {me.tablet ? <Menu.Item onClick={() => leave.mutate()}>Put the tablet down</Menu.Item> : <Menu.Item onClick={() => out.mutate()}>Sign out</Menu.Item>}
        {me.demo && (
          <>
            <Menu.Divider />
            <Menu.Label>Demo: be somebody else</Menu.Label>
            {me.others
              .filter((o) => o.id !== person.id)
              .map((o) => (
                <Menu.Item key={o.id} onClick={() => become.mutate(o.id)}>
                  {o.name}, {roleWords[o.role]}
                </Menu.Item>
              ))}
          </>
        )}
      </Menu.Dropdown>
    </Menu>
  );
}
