import { type ReactNode, useRef } from "react";
import { Button } from "./Button";

type Props = {
  /** What the file is, for those who do not see the button. */
  label: string;
  accept: string;
  onText: (text: string) => void;
  children: ReactNode;
};

/** A button that asks for a file and gives its text. */
export function FileButton({ label, accept, onText, children }: Props) {
  const file = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button onClick={() => file.current?.click()}>{children}</Button>
      <input
        ref={file}
        type="file"
        accept={accept}
        className="sr-only"
        aria-label={label}
        tabIndex={-1}
        onChange={async (event) => {
          const chosen = event.target.files?.[0];
          if (!chosen) return;
          const text = await chosen.text();
          if (file.current) file.current.value = "";
          onText(text);
        }}
      />
    </>
  );
}
