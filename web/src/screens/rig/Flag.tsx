type Props = {
  checked: boolean;
  words: string;
  onCommit: (checked: boolean) => void;
  path?: string;
  className?: string;
};

/** A thing that is so or not. */
export function Flag({ checked, words, onCommit, path, className = "" }: Props) {
  return (
    <label className={`flex min-h-11 items-center gap-2 ${className}`}>
      <input
        type="checkbox"
        data-path={path}
        className="h-5 w-5 flex-none accent-leaf"
        checked={checked}
        onChange={(each) => onCommit(each.target.checked)}
      />
      {words}
    </label>
  );
}
