import { NativeSelect } from "@mantine/core";
import { useParams } from "@tanstack/react-router";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { AddPhoto } from "../bay/AddPhoto";
import { Photograph } from "../bay/Photograph";
import type { Photo } from "../bay/usePhotos";
import { Talk } from "../talk/Talk";
import { useMay } from "../ui/useMe";
import css from "./proof.module.css";

/** Photographs are all of the job, with what each shows, and a way to take another. */
export function Photographs({ photos, may }: { photos: Photo[]; may: Schemas["PhotoOf"][] }) {
  const installs = useMay()("install");
  const [tied, setTied] = useState(may[0]?.tied ?? "before");
  const nameOf = (t: string) => may.find((m) => m.tied === t)?.name ?? t;
  const shown = [...new Set(photos.map((p) => p.tied))];
  return (
    <section className={css.signed} aria-label="Photographs">
      <h2>Photographs</h2>
      {shown.map((t) => (
        <div key={t}>
          <h3>{nameOf(t)}</h3>
          <PhotoRow photos={photos.filter((p) => p.tied === t)} />
          {photos
            .filter((p) => p.tied === t)
            .map((p, i) => (
              <Talk key={p.id} about="photo" subject={p.id} named={`${nameOf(t)}, photograph ${i + 1}`} />
            ))}
        </div>
      ))}
      {installs && (
      <span className="row">
        <NativeSelect aria-label="What it shows" data={may.map((m) => ({ value: m.tied, label: m.name }))} value={tied} onChange={(e) => setTied(e.currentTarget.value)} />
        <AddPhoto tied={tied} named={nameOf(tied)} />
      </span>
      )}
    </section>
  );
}

/** PhotoRow are photographs side by side. */
export function PhotoRow({ photos }: { photos: Photo[] }) {
  const { id = "" } = useParams({ strict: false });
  return (
    <span className={css.photos}>
      {photos.map((p) => (
        <Photograph key={p.id} job={id} photo={p} />
      ))}
    </span>
  );
}
