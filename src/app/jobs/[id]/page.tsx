import { JobScreen } from '@/ui/job/job-screen';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <JobScreen id={(await params).id} />;
}
