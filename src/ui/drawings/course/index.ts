export { CourseCharts, type CourseRow } from './CourseCharts'
