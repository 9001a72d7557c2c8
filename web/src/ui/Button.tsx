import type { ButtonHTMLAttributes, Ref } from "react";

type Props = ButtonHTMLAttributes<HTMLButtonElement> & {
  look?: "plain" | "solid" | "quiet";
  ref?: Ref<HTMLButtonElement>;
};

const LOOKS = {
  plain: "border border-line bg-sheet hover:border-ink",
  solid: "border border-leaf bg-leaf text-sheet hover:brightness-110",
  quiet: "border border-transparent hover:border-line",
};

export function Button({ look = "plain", className = "", type = "button", ...rest }: Props) {
  return (
    <button
      type={type}
      className={`inline-flex min-h-11 min-w-11 items-center gap-1.5 rounded px-3 text-left disabled:opacity-40 ${LOOKS[look]} ${className}`}
      {...rest}
    />
  );
}
