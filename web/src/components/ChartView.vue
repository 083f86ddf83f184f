<script setup lang="ts">
import { BarChart, HeatmapChart, LineChart } from 'echarts/charts'
import { AriaComponent, GridComponent, LegendComponent, TooltipComponent, VisualMapComponent } from 'echarts/components'
import { init, use, type ComposeOption, type EChartsType } from 'echarts/core'
import type { BarSeriesOption, HeatmapSeriesOption, LineSeriesOption } from 'echarts/charts'
import type {
  AriaComponentOption,
  GridComponentOption,
  LegendComponentOption,
  TooltipComponentOption,
  VisualMapComponentOption,
} from 'echarts/components'
import { SVGRenderer } from 'echarts/renderers'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'

/**
 * A chart, still and without sound; what it shows stands in a table beside it. A press on a part of it is told by its
 * series and place.
 */
export type ChartOption = ComposeOption<
  | BarSeriesOption
  | LineSeriesOption
  | HeatmapSeriesOption
  | GridComponentOption
  | TooltipComponentOption
  | LegendComponentOption
  | VisualMapComponentOption
  | AriaComponentOption
>
const props = defineProps<{ option: ChartOption; height: number; label: string }>()
const emit = defineEmits<{ chosen: [series: number, place: number] }>()
use([
  BarChart,
  LineChart,
  HeatmapChart,
  GridComponent,
  TooltipComponent,
  LegendComponent,
  VisualMapComponent,
  AriaComponent,
  SVGRenderer,
])
const place = ref<HTMLElement | null>(null)
let chart: EChartsType | null = null
let sized: ResizeObserver | null = null

const whole = (): ChartOption => ({
  animation: false,
  textStyle: { fontFamily: getComputedStyle(document.body).fontFamily, fontSize: 13 },
  ...props.option,
})
onMounted(() => {
  if (!place.value) return
  chart = init(place.value, null, { renderer: 'svg', height: props.height })
  chart.setOption(whole())
  chart.on('click', (part) => emit('chosen', part.seriesIndex ?? 0, part.dataIndex ?? 0))
  sized = new ResizeObserver(() => chart?.resize())
  sized.observe(place.value)
})
watch(
  () => [props.option, props.height],
  () => {
    chart?.setOption(whole(), true)
    chart?.resize({ height: props.height })
  },
)
onBeforeUnmount(() => {
  sized?.disconnect()
  chart?.dispose()
})
</script>

<template>
  <div ref="place" class="chart" role="img" :aria-label="label" :style="{ height: `${height}px` }" />
</template>

<style scoped>
.chart {
  width: 100%;
}
</style>
