import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, occurredAt, take, type ApiError, type JobView, type Side } from "../../app/api";
import { useCommand } from "../../app/hooks";
import { newId } from "../../app/ids";
import { pictureContent } from "../../app/pictures";
import { ProblemNote } from "../../ui/Problem";

interface Photo {
  file: File;
  side: Side | null;
  of: string | null;
  caption: string;
}

/** Sends a photo; the same one sent again is kept once. */
export function usePhoto(job: JobView) {
  const client = useQueryClient();
  const [eventId, setEventId] = useState(newId);
  return useMutation<unknown, ApiError | Error, Photo>({
    mutationFn: async ({ file, ...photo }) =>
      take(
        api.POST("/api/jobs/{id}/photos", {
          params: { path: { id: job.id } },
          body: { eventId, occurredAt: occurredAt(), ...photo, content: await pictureContent(file) },
        }),
      ),
    onSuccess: () => {
      setEventId(newId());
      return client.invalidateQueries({ queryKey: ["job", job.id] });
    },
  });
}

/** Takes a photo or chooses one; a device with a camera offers it. */
export function PhotoField({ file, set }: { file: File | null; set: (file: File | null) => void }) {
  return (
    <div className="flex items-center gap-3">
      <label className="btn flex-1 cursor-pointer focus-within:outline focus-within:outline-2">
        {file ? "Another photo" : "Add a photo"}
        <input
          type="file"
          accept="image/*"
          capture="environment"
          className="sr-only"
          onChange={(e) => set(e.target.files?.[0] ?? null)}
        />
      </label>
      {file && <Preview file={file} />}
    </div>
  );
}

function Preview({ file }: { file: File }) {
  const [shown, setShown] = useState<{ file: File; url: string } | null>(null);
  if (shown?.file !== file) {
    const reader = new FileReader();
    reader.onload = () => setShown({ file, url: reader.result as string });
    reader.readAsDataURL(file);
  }
  return shown?.file === file ? (
    <img src={shown.url} alt="The photo as it was taken" className="h-24 max-w-[50%] rounded object-cover" />
  ) : (
    <span className="text-[16px]">{file.name}</span>
  );
}

/** A note of the car, or a photo of it or of a corner with what it shows. */
export function NoteForm({ job, back, done }: { job: JobView; back: () => void; done: () => void }) {
  const [text, setText] = useState("");
  const [shows, setShows] = useState<Side | "car" | "">("");
  const [file, setFile] = useState<File | null>(null);
  const note = useCommand<{ text: string }>(job, (h, it) =>
    take(api.POST("/api/jobs/{id}/notes", { params: { path: { id: job.id } }, body: { ...h, ...it } })),
  );
  const photo = usePhoto(job);
  const send = () => {
    if (file)
      photo.mutate(
        { file, side: shows === "car" || shows === "" ? null : shows, of: null, caption: text.trim() },
        { onSuccess: done },
      );
    else note.mutate({ text: text.trim() }, { onSuccess: done });
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        send();
      }}
    >
      <PhotoField file={file} set={setFile} />
      {file && (
        <label className="field mt-3">
          <span>It shows</span>
          <select value={shows} onChange={(e) => setShows(e.target.value as typeof shows)}>
            <option value="">choose</option>
            <option value="left">the left corner</option>
            <option value="right">the right corner</option>
            <option value="car">the car</option>
          </select>
        </label>
      )}
      <label className="field mt-3">
        <span>{file ? "What it shows" : "Note"}</span>
        <input value={text} maxLength={file ? 200 : 500} onChange={(e) => setText(e.target.value)} />
      </label>
      <ProblemNote error={photo.error ?? note.error} />
      <div className="mt-3 flex gap-2">
        <button type="button" className="btn flex-1" onClick={back}>
          Something else
        </button>
        <button
          type="submit"
          className="btn-primary flex-[2]"
          disabled={!text.trim() || (file !== null && shows === "") || photo.isPending || note.isPending}
        >
          {file ? "Keep the photo" : "Add the note"}
        </button>
      </div>
    </form>
  );
}
