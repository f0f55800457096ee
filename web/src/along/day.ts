import { useStored } from "../ui/stored";

/** held says whether this is a device for the hand, that is under a vehicle sooner than at a desk. */
const held = () => typeof matchMedia !== "undefined" && matchMedia("(pointer: coarse)").matches;

/** useDay is whether the day's jobs come along by themselves: on devices for the hand, unless somebody says otherwise. */
export function useDay(): [boolean, (to: boolean) => void] {
  const [kept, set] = useStored("epitrope:day-along", held() ? "yes" : "no");
  return [kept === "yes", (to) => set(to ? "yes" : "no")];
}
