import { type ReactNode, useRef, useState } from "react";
import { api, Refused } from "../api/client";
import { render } from "../units/text";
import { Button } from "./Button";
import { useSettings } from "./settings";

type Props = { label: string; onKept: (key: string) => void; children: ReactNode };

/** A button that asks for a picture, has the program keep it, and tells under which key. */
export function PictureButton({ label, onKept, children }: Props) {
  const file = useRef<HTMLInputElement>(null);
  const { system } = useSettings();
  const [refused, setRefused] = useState("");
  const keep = async (chosen: File) => {
    try {
      const { key } = await api.addPicture(await inBase64(chosen));
      setRefused("");
      onKept(key);
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setRefused(`${render(reason.problem.message, system)} ${render(reason.problem.limit, system)}`);
    }
  };
  return (
    <>
      <Button onClick={() => file.current?.click()}>{children}</Button>
      <input
        ref={file}
        type="file"
        accept="image/png,image/jpeg"
        className="sr-only"
        aria-label={label}
        tabIndex={-1}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) void keep(chosen);
          event.target.value = "";
        }}
      />
      {refused && (
        <p role="alert" className="m-0 text-berry">
          {refused}
        </p>
      )}
    </>
  );
}

async function inBase64(file: File): Promise<string> {
  const url = await new Promise<string>((done, failed) => {
    const reader = new FileReader();
    reader.onload = () => done(String(reader.result));
    reader.onerror = () => failed(reader.error ?? new Error("the file could not be read"));
    reader.readAsDataURL(file);
  });
  return url.slice(url.indexOf(",") + 1);
}
