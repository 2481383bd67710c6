import { useEffect } from 'react';
import { BarChart } from 'echarts/charts';
import { GridComponent, LegendComponent } from 'echarts/components';
import { init, use as register } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import type { WorkedRow } from '#core/marked-again/did-it-work.ts';
import { hundredths } from '#core/assignment/view.ts';
import { useSize } from '../../shared/page/hooks.ts';
import { usePreferences } from '../../shared/page/preferences.ts';
import * as words from '../../words/en.ts';

register([BarChart, GridComponent, LegendComponent, SVGRenderer]);

const ROW_PX = 58;
const AXIS_PX = 56;

/** Points that were expected beside points that came back, a pair of bars for each assignment. */
export function GainBars({ rows }: { rows: readonly WorkedRow[] }) {
  const [frame, { width }] = useSize<HTMLDivElement>();
  const theme = usePreferences((preferences) => preferences.theme);
  const height = rows.length * ROW_PX + AXIS_PX;
  useEffect(() => {
    const element = frame.current;
    if (element === null || width === 0) return;
    const chart = init(element, null, { renderer: 'svg', width, height });
    chart.setOption(optionOf(element, rows));
    return () => chart.dispose();
    // Its colours are those of the theme when it is drawn.
  }, [frame, width, height, rows, theme]);
  return (
    <div
      ref={frame}
      role="img"
      aria-label={words.learn.chartLabel(rows.map(told).join('; '))}
      className="mt-2 w-full overflow-hidden"
      style={{ height }}
    />
  );
}

const told = ({ view, planned, real }: WorkedRow) =>
  words.learn.chartRow(
    view.assignment.title,
    hundredths(planned),
    real === null ? words.learn.notKnown : hundredths(real),
  );

function optionOf(element: HTMLElement, rows: readonly WorkedRow[]) {
  const style = getComputedStyle(element);
  const token = (name: string) => style.getPropertyValue(name).trim();
  const fontSize = 0.8 * parseFloat(style.fontSize);
  const text = { fontFamily: style.fontFamily, fontSize, color: token('--quiet') };
  const bars = (name: string, color: string, of: (row: WorkedRow) => number) => ({
    name,
    type: 'bar' as const,
    data: rows.map((row) => of(row) / 100),
    itemStyle: { color, borderColor: token('--ink'), borderWidth: 1 },
    label: { show: true, position: 'right' as const, ...text, color: token('--ink') },
  });
  return {
    animation: false,
    textStyle: text,
    legend: { top: 0, left: 0, textStyle: text },
    grid: { left: 4, right: 48, top: 30, bottom: 22, containLabel: true },
    xAxis: { type: 'value' as const, axisLabel: text, splitLine: { lineStyle: { color: token('--rule') } } },
    yAxis: {
      type: 'category' as const,
      inverse: true,
      data: rows.map(({ view }) => view.assignment.title),
      axisLabel: { ...text, width: 170, overflow: 'truncate' as const },
    },
    series: [
      bars(words.learn.expectedSeries, token('--surface'), ({ planned }) => planned),
      bars(words.learn.cameSeries, token('--accent'), ({ real }) => real ?? 0),
    ],
  };
}
