import { useEffect } from 'react';
import { LineChart } from 'echarts/charts';
import { GridComponent, MarkAreaComponent, MarkLineComponent } from 'echarts/components';
import { init, use as register } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useSize } from '../../shared/page/hooks.ts';
import { usePreferences } from '../../shared/page/preferences.ts';
import * as words from '../../words/en.ts';
import { hundredths } from '#core/assignment/view.ts';
import { CURVE_HEIGHT_PX, type Curve } from './time-plan.ts';

register([LineChart, GridComponent, MarkAreaComponent, MarkLineComponent, SVGRenderer]);

const HOUR = 60;
/** A cap is drawn where it is at most so many times what the tasks gain: further up it would flatten the curve. */
const CAP_IN_SIGHT = 1.5;

/** What each amount of time gains, with the minutes there are as a cut, and the most that the rules let count. */
export function GainCurve({
  curve,
  minutes,
  whole,
  cap,
}: {
  curve: Curve;
  minutes: number;
  /** Minutes that all tasks take together. */
  whole: number;
  /** What may be gained at most, in hundredths of a point; null where nothing caps it. */
  cap: number | null;
}) {
  const [frame, { width }] = useSize<HTMLDivElement>();
  const theme = usePreferences((preferences) => preferences.theme);
  useEffect(() => {
    const element = frame.current;
    if (element === null || width === 0) return;
    const chart = init(element, null, { renderer: 'svg', width, height: CURVE_HEIGHT_PX });
    chart.setOption(optionOf(element, curve, minutes, whole, cap));
    return () => chart.dispose();
    // Its colours are those of the theme when it is drawn.
  }, [frame, width, curve, minutes, whole, cap, theme]);
  return (
    <div
      ref={frame}
      role="img"
      aria-label={words.plan.curveLabel(
        curve.map(([at, gain]) => words.plan.curveStep(words.plan.hours(at), hundredths(gain))).join(', '),
      )}
      className="mt-2 w-full overflow-hidden"
      style={{ height: CURVE_HEIGHT_PX }}
    />
  );
}

function optionOf(element: HTMLElement, curve: Curve, minutes: number, whole: number, most: number | null) {
  const style = getComputedStyle(element);
  const token = (name: string) => style.getPropertyValue(name).trim();
  const fontSize = 0.8 * parseFloat(style.fontSize);
  const label = { fontFamily: style.fontFamily, fontSize, color: token('--quiet') };
  const [, gained] = curve.at(-1) ?? [0, 0];
  const cap = most !== null && most <= CAP_IN_SIGHT * gained ? most : null;
  const top = Math.max(gained, cap ?? 0) / 100;
  // Half hours on a short scale, at most eight hours on a long one.
  const unit = whole <= 3 * HOUR ? HOUR / 2 : HOUR;
  return {
    animation: false,
    grid: { left: 2, right: 10, top: 14, bottom: 2, containLabel: true },
    xAxis: {
      type: 'value',
      min: 0,
      max: whole,
      interval: unit * Math.max(1, Math.ceil(whole / unit / 8)),
      axisLabel: {
        ...label,
        formatter: (at: number) => (at % unit === 0 && at > 0 ? words.plan.hours(at) : ''),
      },
      axisTick: { show: false },
      axisLine: { lineStyle: { color: token('--rule') } },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value',
      min: 0,
      max: top === 0 ? 1 : top * 1.08,
      splitNumber: 3,
      axisLabel: {
        ...label,
        showMaxLabel: false,
        formatter: (points: number) => (points === 0 ? '0' : `+${points}`),
      },
      splitLine: { lineStyle: { color: token('--rule') } },
    },
    series: [
      {
        type: 'line',
        step: 'end',
        symbol: 'none',
        silent: true,
        data: [...curve.map(([at, gain]) => [at, gain / 100]), [whole, gained / 100]],
        lineStyle: { color: token('--accent'), width: 2 },
        markArea: {
          silent: true,
          itemStyle: { color: token('--sunken'), opacity: 0.8 },
          data: [[{ xAxis: 0 }, { xAxis: Math.min(minutes, whole) }]],
        },
        markLine: {
          silent: true,
          symbol: 'none',
          data: [
            {
              xAxis: Math.min(minutes, whole),
              lineStyle: { color: token('--ink'), type: 'solid', width: 1.5 },
              label: { show: false },
            },
            ...(cap === null
              ? []
              : [
                  {
                    yAxis: cap / 100,
                    lineStyle: { color: token('--ink'), type: 'dashed' },
                    label: {
                      ...label,
                      position: 'insideEndBottom',
                      formatter: words.plan.curveCap(hundredths(cap)),
                    },
                  },
                ]),
          ],
        },
      },
    ],
  };
}
