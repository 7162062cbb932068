/** Water and steam. */
export { CRITICAL, region1, region2, region3, type Properties } from './properties';
export {
  type Saturated,
  saturatedAt,
  saturationPressureMPa,
  saturationTemperatureK,
  compressedWaterDensity,
} from './saturation';
