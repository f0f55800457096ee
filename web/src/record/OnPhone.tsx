import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";

import { api, take } from "../api/client";
import { QR } from "../ui/QR";

/** OnPhone is this job's address for a phone on the workshop's network; nothing where the server is on no network. */
export function OnPhone({ id }: { id: string }) {
  const [open, setOpen] = useState(false);
  const network = useQuery({ queryKey: ["network"], queryFn: () => take(api.GET("/api/network")), staleTime: 60_000 });
  const at = network.data?.addresses[0];
  if (!at) return null;
  const steps = `${at}/jobs/${id}/steps`;
  return (
    <section aria-label="On a phone">
      <h2>On a phone</h2>
      {open ? (
        <p>
          <QR text={steps} says={`The steps of this job, ${steps}`} />
          <br />
          {steps}
          {network.data?.authority && (
            <>
              <br />
              The phone warns? <Link to="/trust">Tell it once to trust this server.</Link>
            </>
          )}
        </p>
      ) : (
        <Button variant="default" onClick={() => setOpen(true)}>
          Show its address as a QR code
        </Button>
      )}
    </section>
  );
}
