import { useQuery } from "@tanstack/react-query";
import { api } from "../../api/client";
import type { Quantity } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { TopBar } from "../../ui/TopBar";
import { textOf } from "../../units/text";

/** Every constant of the method with where it comes from. */
export function FiguresPlace() {
  const { system } = useSettings();
  const topics = useQuery({ queryKey: ["figures"], queryFn: api.figures });
  return (
    <div className="flex h-full flex-col">
      <TopBar>
        <h1 className="m-0 text-xl">Where every figure comes from</h1>
      </TopBar>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls must be reachable by keyboard */}
      <main tabIndex={0} className="min-h-0 flex-1 overflow-y-auto p-6 print:overflow-visible">
        <p className="mt-0 max-w-3xl">
          <strong>Published</strong> figures name their source. <strong>Common practice</strong> is what the
          trade does, with no source. <strong>From memory</strong> was written down without the book at hand.
          An <strong>estimate</strong> is ours, to be replaced by your own weighings.
        </p>
        {topics.data?.map((topic) => (
          <section key={topic.topic} className="mb-6 max-w-4xl">
            <h2 className="mb-1 text-lg">{topic.topic}</h2>
            <table className="w-full border-collapse">
              <tbody>
                {topic.figures.map((figure) => (
                  <tr key={figure.label} className="border-t border-line align-top">
                    <td className="py-1.5 pr-4">{figure.label}</td>
                    <td className="w-32 py-1.5 pr-4 whitespace-nowrap">
                      {textOf(figure.quantity as Quantity, system)}
                    </td>
                    <td className="w-72 py-1.5">
                      {figure.provenance}
                      {figure.source && <span className="text-soft"> ({figure.source})</span>}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        ))}
      </main>
    </div>
  );
}
