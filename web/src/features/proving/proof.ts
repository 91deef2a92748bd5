import { useQuery } from "@tanstack/react-query";
import { api, take, type JobView } from "../../app/api";

/** What a job knows of its own proof, asked anew with each version of it. */
export const useProof = (job: JobView) =>
  useQuery({
    queryKey: ["job", job.id, "proof", job.version],
    queryFn: () => take(api.GET("/api/jobs/{id}/proof", { params: { path: { id: job.id } } })),
    placeholderData: (before) => before,
  });
