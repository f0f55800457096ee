import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { request, type IncomingMessage, type ServerResponse } from "node:http";
import { createServer, type Server } from "node:https";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** Proxy speaks https before several servers, and sends each request to the next of them: what it cannot deliver it gives to another. */
export class Proxy {
  url = "";
  /** The servers' ports; they may change while it runs. */
  to: number[] = [];
  private turn = 0;
  private constructor(private readonly server: Server) {}

  static async start(): Promise<Proxy> {
    const home = mkdtempSync(join(tmpdir(), "epitrope-proxy-"));
    const [key, cert] = [join(home, "key"), join(home, "cert")];
    execFileSync("openssl", ["req", "-x509", "-newkey", "ec", "-pkeyopt", "ec_paramgen_curve:P-256", "-nodes", "-days", "1", "-subj", "/CN=localhost", "-keyout", key, "-out", cert], { stdio: "ignore" });
    const server = createServer({ key: readFileSync(key), cert: readFileSync(cert) });
    rmSync(home, { recursive: true });
    const proxy = new Proxy(server);
    server.on("request", (req, res) => void proxy.deliver(req, res));
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    proxy.url = `https://localhost:${(server.address() as AddressInfo).port}`;
    return proxy;
  }

  private async deliver(req: IncomingMessage, res: ServerResponse): Promise<void> {
    const parts: Buffer[] = [];
    for await (const part of req) parts.push(part as Buffer);
    const body = Buffer.concat(parts);
    for (let i = 0; i < this.to.length; i++) {
      const port = this.to[this.turn++ % this.to.length];
      if (await this.forward(port as number, req, body, res)) return;
    }
    if (!res.headersSent) res.writeHead(502);
    res.end();
  }

  /** forward says whether a server took the request. */
  private forward(port: number, req: IncomingMessage, body: Buffer, res: ServerResponse): Promise<boolean> {
    return new Promise((resolve) => {
      const headers = { ...req.headers, "x-forwarded-for": "198.51.100.7", "x-forwarded-proto": "https" };
      const out = request({ port, host: "127.0.0.1", method: req.method, path: req.url, headers }, (answer) => {
        res.writeHead(answer.statusCode ?? 502, answer.headers);
        answer.pipe(res);
        answer.on("error", () => res.destroy());
        resolve(true);
      });
      // What broke off after it was taken is not sent twice by the proxy: the page does that.
      out.on("error", (e: NodeJS.ErrnoException) => (e.code === "ECONNREFUSED" ? resolve(false) : (res.destroy(), resolve(true))));
      res.on("close", () => out.destroy());
      out.end(body);
    });
  }

  stop(): void {
    this.server.closeAllConnections();
    this.server.close();
  }
}
