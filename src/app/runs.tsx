export { RunsScreen as default } from '@/ui/runs/RunsScreen';
