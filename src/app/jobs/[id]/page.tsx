import { JobScreen } from '@/ui/job/job-screen';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <JobScreen key={id} id={id} />;
}
