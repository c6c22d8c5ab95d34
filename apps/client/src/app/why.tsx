export { WhyPage as default } from '@/areas/why/WhyPage';
