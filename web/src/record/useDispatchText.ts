import { useJob } from "../job/JobContext";

/** useDispatchText ties a plain text control to a text field of the document. */
export function useDispatchText(path: "title" | "customer" | "remarks") {
  const { state, dispatch, mayChange } = useJob();
  return {
    readOnly: !mayChange(path),
    value: state.typing[path] ?? state.doc[path] ?? "",
    onChange: (e: { currentTarget: { value: string } }) => dispatch({ type: "type", path, text: e.currentTarget.value }),
    onBlur: () => dispatch({ type: "leave", path }),
  };
}
