using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Jobs;

/// <summary>A piston moved by what was ruled for its corner: turned or pushed, and never the one for the other.</summary>
internal class ByTheRuling : StepBehaviour
{
    public override string? How(JobState state, Side? side)
    {
        if (side is not { } at || state.Corner(at).Ruled is not { MethodUndecided: false } ruled) return null;
        var (ruling, open) = (ruled.Ruling, state.Setup.Rules.FluidRoom == FluidRoomRule.OpenBleeder);
        var how = ruling.Turned
            ? $"Turned {(ruling.Direction == Vehicles.TurnDirection.Anticlockwise ? "anticlockwise" : "clockwise")}, facing it, pressing along it. Watch the boot and the level."
            : "Pushed straight and slowly, so that the fluid can leave. Watch the boot and the level.";
        if (open) how += " Bleed screw open before each push, closed before letting go.";
        return ruling.Turned && ruling.Slots > 0 && JobPads.PartsAt(state, at).PistonPin
            ? how + " A slot ends at the pad's pin: a pin on the land makes the pad sit crooked, a spongy pedal and taper wear." : how;
    }
}

/// <summary>A piston sent home.</summary>
internal sealed class PistonHome : ByTheRuling
{
    /// <summary>Where a log was kept, it has the last word: a piston that is short of what the new parts need is not home.</summary>
    public override void Check(JobState state, ClickOn command, string? outcome)
    {
        var side = command.Step.Side!.Value;
        if (state.Corner(side).Retraction.Boot is { } boot && BootLook.Judge(boot, state.Opened!.Sheet.Piston.ResealAllowed, state.Setup.Rules.Boot) is { Stop: true } unsound)
            throw new InputException(new InputError("boot", unsound.Name.ToLowerInvariant(), "a sound boot, or a reseal that the maker allows", $"The boot was seen {unsound.Name.ToLowerInvariant()}. {unsound.Do}"));
        if (JobBenches.Creep(state, state.Corner(side).Pistons) is { } creep) RequireAllBack(state, side, creep);
        if (state.Corner(side).Tries.LastOrDefault() is { Passes: false } tried)
            throw new InputException(new InputError("log", $"does not pass at {Figure.Of(tried.Turns, 2)}", "a caliper that passes over its pads", $"At {Figure.Of(tried.Turns, 2)} the caliper did not pass over its pads. A little more, and try it again."));
        if (state.Corner(side).LogPoints().Count == 0) return;
        var log = JobBenches.Retraction(state, side, null).Log;
        if (log.Findings.FirstOrDefault(f => f.Stop && f.Kind != LogFindingKind.Home) is { } f)
            throw new InputException(new InputError("log", f.Name.ToLowerInvariant(), "a log that ends at home", $"The log says: {f.Says} {f.Do}"));
        // What passes over the new pads is far enough: nothing reckoned knows it better.
        if (state.Corner(side).Tries.Count > 0) return;
        var first = state.Corner(side).LogPoints().OrderBy(p => p.Stage).ThenBy(p => p.Turns).First().Protrusion;
        if (!log.Home && log.Protrusion is { } now && state.Corner(side).Travel is { } travel && first - now < travel.Need - Length.FromMillimeters(0.05))
            throw new InputException(new InputError("log", $"{Figure.Of((first - now).Millimeters, 2)} mm in", $"{Figure.Of(travel.Need.Millimeters, 2)} mm", $"By the log it is {Figure.Of((first - now).Millimeters, 2)} mm in and the new parts need {Figure.Of(travel.Need.Millimeters, 2)} mm. Go on, or strike the reading that is wrong."));
    }

    private static void RequireAllBack(JobState state, Side side, CreepAnswer creep)
    {
        if (creep.Stop) throw new InputException(new InputError("pistons", "one beyond its limit", "every piston inside its bore", creep.Says));
        foreach (var m in creep.Pistons.Where(m => !m.Home))
        {
            // Where they stood under the old pads, less what the new parts need: wherever the first round was taken.
            if (JobMeasuring.Enough(state, side, m.Piston.Bank) is not { } most || m.Piston.Now <= most + Length.FromMillimeters(0.05)) continue;
            var (name, stands, wanted) = (CreepWatch.Name(m.Piston), $"{Figure.Of(m.Piston.Now.Millimeters, 2)} mm", $"{Figure.Of(most.Millimeters, 2)} mm");
            throw new InputException(new InputError("pistons", $"{name} at {stands}", $"{wanted} or less", $"By the last round {name} stands {stands} proud; for the new parts it has to be {wanted} or less. Go on, or measure again."));
        }
    }

    /// <summary>What this piston sent back stands in the reservoir until someone looks again.</summary>
    public override JobFile Fold(JobFile file, StepDone done)
    {
        if (done.Step.Side is not { } side) return file;
        // Should it come out again, it is tried anew.
        file = file.WithCorner(side, c => c with { Tries = [] });
        if (file.Corner(side).Travel is not { } travel) return file;
        // With the bleed screw open it ran into the bottle instead.
        var comesBack = file.Setup.Rules.FluidRoom == FluidRoomRule.DrawOff;
        return file.WithCorner(side, c => c with { StandsOff = true }) with { LevelPercent = comesBack ? file.LevelPercent + file.PercentOf(travel.Displaced) : file.LevelPercent };
    }

    /// <summary>What the log has counted is not asked again.</summary>
    public override IReadOnlyList<Prefilled> Prefilled(JobState state, Side side)
    {
        var file = state.Corner(side);
        double[] counted = [.. file.LogPoints().Select(p => p.Turns), .. file.Tries.Select(t => t.Turns)];
        return counted.Length > 0 ? [new(ReadingKind.TurnsMade, Math.Min(counted.Max(), 100), "the log", null)] : [];
    }

    public override StepPage Page(JobState state) => StepPage.Retract;
}

/// <summary>A piston levered back behind its old pad.</summary>
internal sealed class PistonLevered : StepBehaviour
{
    /// <summary>Before anybody has measured, a piston may send back as much as worn-out parts would have let it come out.</summary>
    public override void Check(JobState state, ClickOn command, string? outcome)
    {
        if (state.Setup.Rules.FluidRoom != FluidRoomRule.DrawOff) return;
        var sheet = state.Opened!.Sheet;
        var most = sheet.Pads.NewInnerTotal + sheet.Pads.NewOuterTotal - 2 * sheet.Pads.Backing + (sheet.Rotor.NewThickness - (sheet.Rotor.MinimumThickness ?? sheet.Rotor.NewThickness));
        var comes = DisplacedFluid.Volume([.. Enumerable.Repeat(sheet.Piston.Diameter, sheet.Piston.PistonsPerCaliper)], most);
        var level = command.Readings.First(r => r.Kind == ReadingKind.ReservoirLevel).Value;
        var room = ReservoirRoom.Judge(state.Reservoir, Math.Clamp(level, 0, 150), comes);
        if (room.Verdict != RoomVerdict.DrawOffFirst) return;
        throw new InputException(new InputError(nameof(ReadingKind.ReservoirLevel), $"{Figure.Of(level)} %", $"room for {DisplacedFluid.Words(comes)}",
            $"Up to {DisplacedFluid.Words(comes)} can come back and there is no room for it at {Figure.Of(level)} %: draw off with a clean syringe and read again, or take the caliper off and measure."));
    }
}

/// <summary>A levered piston, seen.</summary>
internal sealed class PistonJudged : StepBehaviour
{
    /// <summary>Where the sheet has a home figure, what the measuring step read has the last word.</summary>
    public override void Check(JobState state, ClickOn command, string? outcome)
    {
        if (outcome is not null) return;
        var side = command.Step.Side!.Value;
        if (state.Opened!.Sheet.Piston.HomeProtrusion is not { } home || JobMeasuring.Protrusion(state, side) is not { } stands || (stands - home).Millimeters <= RetractionLog.HomeWithin) return;
        throw new InputException(new InputError("outcome", $"{Figure.Of(stands.Millimeters, 1)} mm proud", $"{Figure.Of(home.Millimeters, 1)} mm proud, within {Figure.Of(RetractionLog.HomeWithin, 1)}",
            $"By the measuring step it stands {Figure.Of(stands.Millimeters, 1)} mm proud and home is {Figure.Of(home.Millimeters, 1)}: it is not home. Say that it stands out."));
    }
}

/// <summary>A new caliper has a log and draws of its own.</summary>
internal sealed class NewCaliperHung : StepBehaviour
{
    /// <summary>A new piston comes as it comes: its slot is turned before anything covers it, where the pad has a pin for it.</summary>
    public override string? How(JobState state, Side? side)
    {
        var how = StepCatalogue.Find("new-caliper-hung")!.HowIn(state.Setup);
        return side is { } at && state.Corner(at).Ruled?.Ruling is { Turned: true, Slots: > 0 } && JobPads.PartsAt(state, at).PistonPin
            ? how + " Its piston's slot is turned to the pad's pin now, before anything covers it." : how;
    }

    public override JobFile Fold(JobFile file, StepDone done) => done.Step.Side is { } side
        ? file.WithCorner(side, c => c with { Log = [], Tries = [], Retraction = RetractionFacts.None with { Place = c.Retraction.Place }, AllDraws = [], Pistons = [], LevelPercent = null, StandsOff = false }) : file;
}
