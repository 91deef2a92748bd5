using PatientPawl.Core;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;

namespace PatientPawl.Web.Hosting;

/// <summary>An event in a few words, for the one who clicked second.</summary>
internal static class RecordWords
{
    public static string Of(JobEvent e) => e switch
    {
        StepDone s => At(StepCatalogue.Find(s.Step.StepId)?.Name ?? s.Step.StepId, s.Step.Side),
        TorqueSigned t => At($"{StepCatalogue.Find(t.Step.StepId)?.Name ?? t.Step.StepId} {t.Index} signed", t.Step.Side),
        LookRecorded l => At(l.Seen is { } seen ? LookCatalogue.Words(new Observation(l.Look, seen)) : $"{l.Look.Card().Name} taken back", l.Side),
        BrakeRuled r => At("Brake identified", r.Side),
        StopSignSeen s => At("Stop sign seen", s.Side),
        PawlLifted p => $"Pawl lifted: {p.Reason}",
        LookOverDone => "Looked over",
        RouteChosen => "Route chosen",
        NoteAdded => "Note added",
        ReadingsTaken r => At($"{r.Readings.Count} {(r.Readings.Count == 1 ? "reading" : "readings")} taken", r.Side),
        ReadingStruck r => At("Reading struck out", r.Side),
        ShoesLookedAt s => At("Drum and shoes looked at", s.Side),
        RotorLookedAt r => At("Rotor looked at", r.Side),
        PadsLookedAt => "Pads looked at",
        RetractionPointNoted p => At("Piston followed", p.Side),
        RetractionPointStruck p => At("Line of the log struck out", p.Side),
        RetractionLookedAt r => At("Piston looked at", r.Side),
        FluidLookedAt => "Fluid looked at",
        BleedDrawn b => At("Fluid drawn at the screw", b.Side),
        BleedDrawStruck b => At("Draw struck out", b.Side),
        LeaksLookedAt => "Leaks looked for",
        PistonsMeasured p => At("Pistons measured", p.Side),
        StarWheelNoted n => At("Star wheel noted", n.Side),
        FindingReported f => At($"Found: {f.Kind.Card().Name.ToLowerInvariant()}", f.Side),
        LeftOvernight => "Left overnight",
        CameBack => "Came back",
        ToolRefused r => At("Tool refused", r.Step.Side),
        _ => "Job opened",
    };

    private static string At(string what, Side? side) => side is { } s ? $"{what}, {s.Word()}" : what;
}
