using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Workshop;
using PatientPawl.Core;
using PatientPawl.Data;
using PatientPawl.Web.Torque;

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
public sealed record Catalogue(IReadOnlyList<LookCard> Looks, IReadOnlyList<ArchitectureCard> Architectures, IReadOnlyList<LookOverQuestion> LookOver, IReadOnlyList<MeasurandCard> Measurands);

/// <summary>A certificate as it is entered.</summary>
/// <param name="Number">Its number.</param>
/// <param name="On">The day of the calibration.</param>
/// <param name="Until">The last day that it counts for.</param>
/// <param name="UncertaintyPercent">Expanded uncertainty (k = 2), per cent.</param>
/// <param name="Points">Its points.</param>
/// <param name="File">The laboratory's paper as PDF, in base64; null where there is none.</param>
public sealed record CertificateSent(string Number, DateOnly On, DateOnly Until, double UncertaintyPercent,
    IReadOnlyList<CalibrationPoint> Points, byte[]? File = null);

/// <summary>A wrench's certificates and what they say of it.</summary>
public sealed record WrenchCertified(string WrenchId, IReadOnlyList<WrenchCertificate> Certificates, CalibrationAnswer Says);

internal static class WorkshopEndpoints
{
    private const int MostPaperBytes = 4 * 1024 * 1024;

    public static void MapWorkshop(this RouteGroupBuilder api)
    {
        api.MapGet("/catalogue", () => TypedResults.Ok(new Catalogue(LookCatalogue.All, ArchitectureCatalogue.All, LookOverQuestions.All, MeasurandCatalogue.All)));
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
        Wrenches(api);
    }

    private static void Wrenches(RouteGroupBuilder api)
    {
        var wrenches = api.MapGroup("/workshop/wrenches").RequireAuthorization();
        // Who changes what a wrench may be set to changes every torque after it: the lead does.
        wrenches.MapPost("/", (Wrench wrench, HttpContext http, Library library) =>
        {
            http.RequireLead();
            library.Save(wrench.Checked().By(library.Certificates(wrench.Id)));
            return TypedResults.Ok(library.Wrenches());
        });
        wrenches.MapDelete("/{id}", (string id, HttpContext http, Library library) =>
        {
            http.RequireLead();
            library.RemoveWrench(TorqueEndpoints.Find(library.Wrenches(), id).Id);
            return TypedResults.Ok(library.Wrenches());
        });
        wrenches.MapGet("/certificates", (Library library) => TypedResults.Ok(Certified(library)));
        wrenches.MapPost("/{id}/certificates", (string id, CertificateSent sent, HttpContext http, Library library, ToolBoard board) =>
        {
            http.RequireLead();
            var wrench = TorqueEndpoints.Find(library.Wrenches(), id);
            if (sent.File is { } paper && (paper.Length > MostPaperBytes || !paper.AsSpan().StartsWith("%PDF-"u8)))
                throw new InputException(new InputError("file", $"{Figure.Of(paper.Length / 1048576.0, 1)} MB", "a PDF of at most 4 MB",
                    "The laboratory's paper is kept as a PDF of at most 4 MB."));
            var others = library.Certificates(id).Where(c => c.On != sent.On).ToArray();
            var sound = new WrenchCertificate(id, sent.Number, sent.On, sent.Until, sent.UncertaintyPercent, sent.Points)
                .Checked(wrench, others, board.Today);
            library.Save(wrench.By([.. others, sound]), sound, sent.File);
            return TypedResults.Ok(Certified(library));
        }).WithMetadata(new Microsoft.AspNetCore.Mvc.RequestSizeLimitAttribute(2 * MostPaperBytes));
        wrenches.MapGet("/{id}/certificates/{on}/file", (string id, DateOnly on, Library library) => library.CertificateFile(id, on) is { } paper
            ? Results.File(paper, "application/pdf", $"{id}-{Figure.Date(on)}.pdf")
            : throw new InputException(new InputError("on", Figure.Date(on), "a certificate whose paper is kept",
                "No paper is kept of that certificate.")))
            .Produces(StatusCodes.Status200OK, contentType: "application/pdf");
    }

    private static List<WrenchCertified> Certified(Library library)
    {
        return [.. library.Wrenches().Select(w => (Wrench: w, Of: library.Certificates(w.Id))).Where(x => x.Of.Count > 0)
            .Select(x => new WrenchCertified(x.Wrench.Id, x.Of, WrenchCalibration.Judge(x.Wrench, x.Of)))];
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
