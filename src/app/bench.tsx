export { BenchScreen as default } from '@/ui/bench/BenchScreen';
