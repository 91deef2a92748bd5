using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Workshop;
using PatientPawl.Data;

namespace PatientPawl.Web.Workshop;

/// <summary>A house rule with the school in force.</summary>
public sealed record HouseRuleInForce(HouseRuleCard Card, string InForce);

/// <summary>House rules and what they make of a sample plan.</summary>
public sealed record HouseRulesView(HouseRules Rules, IReadOnlyList<HouseRuleInForce> Cards, IReadOnlyList<string> SamplePlan);

/// <summary>An interlock, for the sources page.</summary>
public sealed record InterlockText(int Number, string Name, string Message, string Why, string Remedy);

/// <summary>Sources, default figures and interlocks: where everything comes from.</summary>
public sealed record SourcesView(IReadOnlyList<Source> Sources, IReadOnlyList<InterlockText> Interlocks);

/// <summary>What never changes while the product runs.</summary>
public sealed record Catalogue(IReadOnlyList<LookCard> Looks, IReadOnlyList<ArchitectureCard> Architectures, IReadOnlyList<LookOverQuestion> LookOver, IReadOnlyList<Core.Measuring.MeasurandCard> Measurands);

internal static class WorkshopEndpoints
{
    public static void MapWorkshop(this RouteGroupBuilder api)
    {
        api.MapGet("/catalogue", () => TypedResults.Ok(new Catalogue(LookCatalogue.All, ArchitectureCatalogue.All, LookOverQuestions.All, Core.Measuring.MeasurandCatalogue.All)));
        api.MapGet("/sources", () => TypedResults.Ok(new SourcesView(Sources.All, [.. Interlocks.All.Select(i => new InterlockText(i.Number, i.Name, i.Message, i.Why, i.Remedy))])));
        api.MapGet("/workshop/house-rules", (Library library) => TypedResults.Ok(View(library.HouseRules)));
        // What a change would do, before it is made.
        api.MapPost("/workshop/house-rules/preview", (HouseRules rules) => TypedResults.Ok(View(rules.Checked())));
        api.MapPut("/workshop/house-rules", (HouseRules rules, HttpContext http, Library library) =>
        {
            http.RequireLead();
            library.SetHouseRules(rules.Checked());
            return TypedResults.Ok(View(rules));
        }).RequireAuthorization();
        // What the reading of every log after the start found: jobs that differ from what was stored.
        api.MapGet("/workshop/logs", (Hosting.StartChecks checks) => TypedResults.Ok(checks.Found)).RequireAuthorization();
        api.MapGet("/workshop/wrenches", (Library library) => TypedResults.Ok(library.Wrenches()));
    }

    private static HouseRulesView View(HouseRules rules)
    {
        var setup = PlanSetup.For(Architecture.CableScrew, JobScope.PadsAndRotors) with { Rules = rules };
        var plan = Planner.Make(setup, setup.Start());
        return new(rules,
            [
                .. HouseRuleCatalogue.All.Select(c => new HouseRuleInForce(c, c.InForce(rules).Key)),
            ],
            [.. plan.Steps.Select(k => StepCatalogue.Find(k.StepId)!.Name + (k.Side is { } s ? $", {s.ToString().ToLowerInvariant()}" : ""))]);
    }
}
