import { Application } from "./application";

/** The application that most tests share; those that stop things start their own. */
export default async function setup(): Promise<() => Promise<void>> {
  const app = await Application.start(true);
  process.env.EPITROPE_URL = app.url;
  return () => app.stop();
}
