import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";

import { api, take } from "../api/client";
import { QR } from "../ui/QR";
import { Failed, Waiting } from "../ui/Wait";
import { Plate } from "./Plate";
import css from "./people.module.css";

/** steps are how an authority is trusted on the common systems, from memory: menus are called otherwise from year to year. */
const steps: { system: string; says: string[] }[] = [
  { system: "iPhone, iPad", says: ["Take the authority with the browser that came with it, and allow the download.", "Settings, at the top: Profile downloaded. Install it.", "Settings, General, About, at the foot: Certificate trust settings. Turn it on for Epitrope."] },
  { system: "Android", says: ["Take the authority.", "Settings, Security, Encryption and credentials, Install a certificate, CA certificate. The phone warns; compare the fingerprint first.", "Pick the file that was downloaded."] },
  { system: "Windows", says: ["Take the authority and open it.", "Install certificate, for you alone, into “Trusted root certification authorities”.", "Compare the fingerprint where it asks."] },
  { system: "macOS", says: ["Take the authority and open it: it lands in the keychain.", "Open it there, under Trust choose “Always trust”."] },
  { system: "Linux", says: ["Take the authority.", "In the browser's settings: Certificates, Authorities, Import; trust it for websites."] },
];

/** Trust tells a phone how to trust this server's authority, once. */
export function Trust() {
  const network = useQuery({ queryKey: ["network"], queryFn: () => take(api.GET("/api/network")), staleTime: 60_000 });
  if (network.isPending) return <Waiting what="Looking at the network" />;
  if (network.isError) return <Failed what="The network" error={network.error} again={() => void network.refetch()} />;
  const n = network.data;
  if (!n.authority) {
    return (
      <Plate title="Nothing to trust here">
        <p>{n.addresses.length === 0 ? "This server answers its own machine alone, or stands behind an address that phones trust already." : "This server has a certificate that phones trust already."}</p>
        <Button component="a" href="/" variant="default">
          To the front page
        </Button>
      </Plate>
    );
  }
  return (
    <Plate title="Trust this server, once" says="It vouches for itself on the workshop's network: the phone warns until it is told so. What it vouches for is this machine and private addresses alone.">
      <div className={css.trust}>
        {n.addresses.slice(0, 1).map((a) => (
          <figure key={a}>
            <QR text={`${a}/trust`} says={`The address of this page, ${a}/trust`} />
            <figcaption>{a}</figcaption>
          </figure>
        ))}
        <p>Compare this with what the server printed when it started. Where they differ, somebody is between: stop.</p>
        <code className={css.secret}>{n.fingerprint}</code>
        <Button component="a" size="md" href="/api/network/authority.crt" download>
          Take the authority
        </Button>
        {steps.map((s) => (
          <details key={s.system}>
            <summary>{s.system}</summary>
            <ol>
              {s.says.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ol>
          </details>
        ))}
        <Button component="a" href="/" variant="default">
          Done: to the jobs
        </Button>
      </div>
    </Plate>
  );
}
