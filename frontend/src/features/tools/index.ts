export { useToolCheck } from './toolCheck'
