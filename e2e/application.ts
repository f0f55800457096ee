import { execFileSync, spawn, type ChildProcess } from "node:child_process";
import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { ask } from "./ask";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const postgres = join(root, "scripts/postgres.sh");

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer().listen(0, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}

/** Application is one running Epitrope with a database of its own, which can be stopped and started. */
export class Application {
  url = "";
  private server: ChildProcess | undefined;
  private readonly state: string;
  private readonly ports: { database: number; http: number };
  private address = "";

  /** What the server said when it started. */
  said = "";

  private constructor(state: string, ports: { database: number; http: number }) {
    this.state = state;
    this.ports = ports;
  }

  /** start begins an application of the demo's people, with or without its jobs. */
  static async start(seed: boolean, env: Record<string, string> = {}, flags: string[] = []): Promise<Application> {
    const app = await Application.bare();
    [app.env, app.flags] = [env, flags];
    execFileSync(join(root, "bin/epitrope"), ["seed", "--database", app.address, ...(seed ? [] : ["--people"])], { stdio: "ignore" });
    await app.startServer();
    return app;
  }

  /** fresh begins one that nobody has begun, as whoever installs it has it; it is reached by its name. */
  static async fresh(): Promise<Application> {
    const app = await Application.bare();
    app.demo = false;
    await app.startServer();
    app.url = app.url.replace("127.0.0.1", "localhost");
    return app;
  }

  /** onNetwork begins one on the machine's own network, by TLS; plain is where plain http is answered. */
  static async onNetwork(): Promise<Application> {
    const app = await Application.bare();
    app.demo = false;
    const port = await freePort();
    app.flags = ["--lan", "--lan-address", `127.0.0.1:${port}`];
    app.plain = `http://localhost:${app.ports.http}`;
    await app.startServer();
    app.url = `https://localhost:${port}`;
    return app;
  }

  /** behind begins one that something before it speaks https for; publicly is its address as browsers name it. */
  static async behind(publicly: string): Promise<Application> {
    const app = await Application.bare();
    app.demo = false;
    app.flags = ["--public", publicly];
    await app.startServer();
    return app;
  }

  /** twin is a second server on this one's database. */
  async twin(): Promise<Application> {
    const twin = new Application(this.state, { database: this.ports.database, http: await freePort() });
    twin.address = this.address;
    [twin.demo, twin.flags] = [this.demo, this.flags];
    await twin.startServer();
    return twin;
  }

  /** kill ends the server as a power cut does. */
  async kill(): Promise<void> {
    const server = this.server;
    await new Promise((resolve) => {
      server?.once("exit", resolve);
      server?.kill("SIGKILL");
    });
  }

  /** port is where the server listens. */
  get port(): number {
    return this.ports.http;
  }

  plain = "";
  private flags: string[] = [];
  private env: Record<string, string> = {};
  private demo = true;

  private static async bare(): Promise<Application> {
    const state = mkdtempSync("/var/tmp/epitrope-e2e-");
    chmodSync(state, 0o755);
    const app = new Application(state, { database: await freePort(), http: await freePort() });
    app.startDatabase();
    return app;
  }

  startDatabase(): void {
    const env = { ...process.env, EPITROPE_PG_PORT: String(this.ports.database) };
    this.address = execFileSync(postgres, ["start", join(this.state, "pg")], { env }).toString().trim();
  }

  stopDatabase(): void {
    execFileSync(postgres, ["stop", join(this.state, "pg")]);
  }

  async startServer(): Promise<void> {
    this.url = `http://127.0.0.1:${this.ports.http}`;
    this.server = spawn(join(root, "bin/epitrope"), ["serve", ...(this.demo ? ["--demo"] : []), ...this.flags, "--address", `127.0.0.1:${this.ports.http}`, "--database", this.address], { stdio: ["ignore", "pipe", "ignore"], env: { ...process.env, ...this.env } });
    this.said = "";
    this.server.stdout?.on("data", (text: Buffer) => (this.said += text.toString()));
    for (let i = 0; i < 100; i++) {
      const ready = this.plain ? this.said.includes("Epitrope is at") : await fetch(`${this.url}/health/ready`).then((r) => r.ok, () => false);
      if (ready) return;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error("the application did not start");
  }

  async stopServer(): Promise<void> {
    const server = this.server;
    if (!server || server.exitCode !== null || server.signalCode !== null) return;
    await new Promise((resolve) => {
      server.once("exit", resolve);
      server.kill("SIGTERM");
    });
  }

  /** Ports of those that a test has done with: pages that are still open go on asking them. */
  static readonly ended = new Set<number>();

  async stop(): Promise<void> {
    Application.ended.add(this.ports.http);
    await this.stopServer();
    this.stopDatabase();
    rmSync(this.state, { recursive: true, force: true });
  }

  /** create stores a job and returns the address of its section. */
  async create(document: Record<string, unknown>): Promise<{ id: string; section: string }> {
    const res = await ask(`${this.url}/api/jobs`, { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ format: "epitrope-job", version: 1, ...document }) });
    const { id } = (await res.json()) as { id: string };
    return { id, section: `${this.url}/jobs/${id}` };
  }

  /** draft is what the server has stored of a job. */
  async draft(id: string): Promise<{ version: number; document: Record<string, Record<string, unknown>> & { title?: string } }> {
    const res = await ask(`${this.url}/api/jobs/${id}`);
    return ((await res.json()) as { draft: never }).draft;
  }
}
