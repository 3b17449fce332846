export { StepsScreen as default } from '@/ui/steps/StepsScreen';
