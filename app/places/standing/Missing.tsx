import { memo, useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { BarChart } from 'echarts/charts';
import { GridComponent } from 'echarts/components';
import { init, use as register } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { HUNDRED, add, toShown, multiply, ZERO, type Fraction } from '#core/scores/fraction.ts';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { useSize } from '../../shared/page/hooks.ts';
import { shownShares } from '../../shared/shown/figures.ts';
import { usePreferences } from '../../shared/page/preferences.ts';
import * as words from '../../words/en.ts';
import { missingByCriterion, type Missing as MissingIn, type Standing } from '#core/assignment/standing.ts';
import { assignmentAddress, criterionAddress } from '../../shared/page/addresses.ts';

register([BarChart, GridComponent, SVGRenderer]);

const ROW_PX = 34;

/** So many criteria and assignments are told by themselves until all are asked for. */
const CRITERIA_SHOWN = 10;
const ASSIGNMENTS_SHOWN = 4;

/** Where the missing points of the course lie, by criterion: a chart, and a table beside it. */
export const Missing = memo(function Missing({ standing }: { standing: Standing }) {
  const all = useMemo(() => missingByCriterion(standing), [standing]);
  const [whole, setWhole] = useState(false);
  const rows = useMemo(() => (whole ? all : withOthers(all)), [all, whole]);
  const shown = useMemo(() => shownShares(rows.map(({ missing }) => missing)), [rows]);
  const total = sumOf(rows);
  return (
    <section>
      <SectionTitle>{words.standing.missing}</SectionTitle>
      {rows.length === 0 ? (
        <p className="mt-1 text-quiet">{words.standing.missingNone}</p>
      ) : (
        <>
          <p className="mt-1 text-sm text-quiet">{words.standing.missingLead(shownShares([total])[0])}</p>
          <Chart rows={rows} shown={shown} />
          <table className="mt-3 w-full text-sm">
            <caption className="sr-only">{words.standing.missing}</caption>
            <thead className="text-quiet">
              <tr>
                <th scope="col" className="py-1 text-left font-normal">
                  {words.standing.missingCriterion}
                </th>
                <th scope="col" className="text-right font-normal">
                  {words.standing.missingPoints}
                </th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row, i) => (
                <tr key={row.title} className="border-t border-rule align-top">
                  <th scope="row" className="py-1.5 text-left font-normal">
                    {titleOf(row)}
                    <In row={row} />
                  </th>
                  <td className="py-1.5 text-right">{shown[i]}</td>
                </tr>
              ))}
              <tr className="border-t border-ink font-bold">
                <th scope="row" className="py-1.5 text-left">
                  {words.standing.together}
                </th>
                <td className="text-right">{shownShares([total])[0]}</td>
              </tr>
            </tbody>
          </table>
          {rows.length < all.length && (
            <Button look="quiet" className="px-0" onClick={() => setWhole(true)}>
              {words.standing.missingAll(all.length)}
            </Button>
          )}
        </>
      )}
    </section>
  );
});

function sumOf(rows: readonly { readonly missing: Fraction }[]): Fraction {
  return rows.reduce((sum, { missing }) => add(sum, missing), ZERO);
}

/** The largest, and all others as one row without assignments. */
function withOthers(all: readonly MissingIn[]): readonly MissingIn[] {
  const others = all.slice(CRITERIA_SHOWN);
  if (others.length < 2) return all;
  return [
    ...all.slice(0, CRITERIA_SHOWN),
    { title: words.standing.missingOthers(others.length), missing: sumOf(others), assignments: [] },
  ];
}

function titleOf({ title }: MissingIn): string {
  return title === '' ? words.standing.missingOther : title;
}

/** The assignments that points of a criterion are missing in, with how many; the parts make the row. */
function In({ row: { title, assignments } }: { row: MissingIn }) {
  const [all, setAll] = useState(false);
  const parts = useMemo(() => shownShares(assignments.map(({ missing }) => missing)), [assignments]);
  const cut = !all && assignments.length > ASSIGNMENTS_SHOWN + 1;
  return (
    <span className="block text-quiet">
      {(cut ? assignments.slice(0, ASSIGNMENTS_SHOWN) : assignments).map(
        ({ view: { assignment, criteria } }, n) => {
          const criterion = criteria.find((one) => one.criterion.title === title)?.criterion;
          return (
            <span key={assignment.id}>
              {n > 0 && ' · '}
              <Link
                to={
                  criterion === undefined
                    ? assignmentAddress(assignment.id)
                    : criterionAddress(assignment.id, criterion.id)
                }
                className="hover:text-ink hover:underline"
              >
                {assignment.title}
              </Link>{' '}
              {parts[n]}
            </span>
          );
        },
      )}
      {cut && (
        <button
          type="button"
          className="ml-2 font-semibold text-accent hover:underline"
          onClick={() => setAll(true)}
        >
          {words.standing.missingMore(assignments.length - ASSIGNMENTS_SHOWN)}
        </button>
      )}
    </span>
  );
}

function Chart({ rows, shown }: { rows: readonly MissingIn[]; shown: readonly string[] }) {
  const [frame, { width }] = useSize<HTMLDivElement>();
  const theme = usePreferences((preferences) => preferences.theme);
  const titles = useMemo(() => rows.map(titleOf), [rows]);
  useEffect(() => {
    const element = frame.current;
    if (element === null || width === 0) return;
    const chart = init(element, null, { renderer: 'svg', width, height: rowsHeight(rows.length) });
    chart.setOption(optionOf(element, rows, titles, shown));
    return () => chart.dispose();
    // Its colours are those of the theme when it is drawn.
  }, [frame, width, rows, titles, shown, theme]);
  return (
    <div
      ref={frame}
      role="img"
      aria-label={words.standing.chartLabel(titles.map((title, i) => `${title} ${shown[i]}`).join(', '))}
      className="mt-2 w-full overflow-hidden"
      style={{ height: rowsHeight(rows.length) }}
    />
  );
}

function rowsHeight(count: number): number {
  return count * ROW_PX + 8;
}

function optionOf(
  element: HTMLElement,
  rows: readonly MissingIn[],
  titles: readonly string[],
  shown: readonly string[],
) {
  const style = getComputedStyle(element);
  const token = (name: string) => style.getPropertyValue(name).trim();
  const label = {
    show: true,
    fontFamily: style.fontFamily,
    fontSize: 0.85 * parseFloat(style.fontSize),
    color: token('--ink'),
  };
  const textOf =
    (texts: readonly string[]) =>
    ({ dataIndex }: { dataIndex: number }) =>
      texts[dataIndex];
  return {
    animation: false,
    grid: { left: 0, right: 44, top: 8, bottom: 0 },
    xAxis: { type: 'value', show: false },
    yAxis: { type: 'category', inverse: true, data: [...titles], show: false },
    series: [
      {
        type: 'bar',
        data: rows.map(({ missing }) => Number(toShown(multiply(missing, HUNDRED), 3))),
        barWidth: 9,
        itemStyle: { color: token('--quiet') },
        label: { ...label, position: 'right', formatter: textOf(shown) },
      },
      {
        // The titles stand over their bars: beside them they would take half of the width.
        type: 'bar',
        data: titles.map(() => 0),
        barWidth: 9,
        barGap: '-100%',
        silent: true,
        label: { ...label, position: 'insideLeft', offset: [0, -15], formatter: textOf(titles) },
      },
    ],
  };
}
