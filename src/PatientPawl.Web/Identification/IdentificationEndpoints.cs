using PatientPawl.Core.Identification;

namespace PatientPawl.Web.Identification;

/// <summary>Observations of one corner.</summary>
public sealed record IdentifyRequest(IReadOnlyList<Observation> Observations, bool MechanismRelaxed);

internal static class IdentificationEndpoints
{
    public static void MapIdentification(this RouteGroupBuilder api) =>
        api.MapPost("/bench/identify", (IdentifyRequest r) => TypedResults.Ok(Identify.Corner(r.Observations, r.MechanismRelaxed)));
}
