using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Practice;

/// <summary>Pistons that are moved, and star wheels that are turned, by what was chosen.</summary>
public sealed partial class PracticeWorld
{
    private string WayOf(Side side)
    {
        var sheet = side == Side.Left ? _scenario.Sheet.Piston.DirectionLeft : _scenario.Sheet.Piston.DirectionRight;
        var way = (sheet ?? TurnDirection.Clockwise) == TurnDirection.Clockwise ? "clockwise" : "anticlockwise";
        return _scenario.Truth.At(side).Architecture switch
        {
            Architecture.CableScrew or Architecture.PullerScrew or Architecture.MotorTurn => $"turn-{way}",
            Architecture.RearHex => $"hex-{way}",
            Architecture.FixedHat => "push-pairs",
            _ => "push",
        };
    }

    private void Answered(PracticeAnswered e)
    {
        if (e.Step.Side is not { } side) return;
        if (e.Step.StepId == "piston-home") MovePiston(side, e.Option);
        if (e.Step.StepId == "star-wheel-backed")
        {
            var way = e.Option == "up";
            if (way != _now.At(side).Truth.StarLoosensUp)
                Happens(HarmTo.Time, "The shoes come out and bind: the hub will not turn.", TrapId.StarWheelWrongWay);
            else Feels("The hub turns more easily with every click.");
        }
    }

    private void ClaimHome(Side side)
    {
        var home = _scenario.Sheet.Piston.HomeProtrusion?.Millimeters ?? PracticeFigures.HomeMm;
        if (_now.At(side).ProudMm <= home + 0.5) return;
        if (_now.At(side).Has(CornerFault.PistonStuck))
            Happens(HarmTo.Part, "It was forced home: the bore is scored, and the caliper is scrap.", TrapId.StuckForced);
        else Happens(HarmTo.Time,
            $"It still stands {Figure.Of(_now.At(side).ProudMm, 1)} mm proud: the caliper does not go over its pads.", null);
        _now = _now.With(side, c => c with { ProudMm = home, StandsOff = true });
    }

    private void MovePiston(Side side, string how)
    {
        var corner = _now.At(side);
        if (corner.Has(CornerFault.PistonStuck))
        {
            Feels("Hard. It does not move.");
            return;
        }

        var screw = corner.Truth.Architecture is Architecture.CableScrew or Architecture.PullerScrew or Architecture.MotorTurn;
        var hex = corner.Truth.Architecture == Architecture.RearHex;
        var clockwise = WayOf(side).EndsWith("-clockwise", StringComparison.Ordinal);
        var turned = how is "turn-clockwise" or "turn-anticlockwise";
        if (HasMotorAtCaliper && !corner.SpindleBack)
        {
            Feels("Hard. It stands on the spindle and does not move.");
            return;
        }

        if (screw && how is "push" or "push-pairs" || hex && how is "push" or "push-pairs" or "turn-clockwise" or "turn-anticlockwise")
        {
            if (!corner.Stripped)
                Happens(HarmTo.Part, "It holds, holds, and goes with a crack: its screw is stripped, the caliper is scrap.",
                    TrapId.ClampOnScrew);
            _now = _now.With(side, c => c with { Stripped = true });
            return;
        }

        // A lever's piston that is pressed while it is turned goes in as if it were only pressed.
        if (turned && !screw && corner.Truth.Architecture != Architecture.LeverPush)
        {
            if (!corner.Wound)
            {
                Happens(HarmTo.Part, "It turns and turns and does not go in: the boot winds up with it and tears.",
                    corner.Has(CornerFault.NotchedFace) ? TrapId.NotchedMotor : TrapId.TornBoot);
            }

            _now = _now.With(side, c => c with { Wound = true });
            return;
        }

        if (how is "hex-clockwise" or "hex-anticlockwise" && !hex)
        {
            Feels("There is no hex at the back of this caliper.");
            return;
        }

        if ((screw || hex) && how.EndsWith("anticlockwise", StringComparison.Ordinal) == clockwise)
        {
            Feels("It comes out, not in.");
            return;
        }

        if (how == "leave") return;
        if (corner.Has(CornerFault.BootSticks) && !corner.BootFreed && screw)
        {
            Happens(HarmTo.Part, "The lip of the boot stuck to the piston: it winds up and tears.", TrapId.TornBoot);
        }

        var pullsBack = corner.Truth.Architecture is Architecture.CableScrew or Architecture.PullerScrew or Architecture.LeverPush
            or Architecture.RearHex;
        if (pullsBack && !corner.LeverFree && !_now.InService)
        {
            Happens(HarmTo.Time, "It goes in, and springs out again as the tool lets go: the cable still pulls.", TrapId.TightCable);
            return;
        }

        if (corner.Has(CornerFault.HoseCollapsed) && !Told(side, CornerFault.HoseCollapsed))
            Feels("Hard, and it creeps back: fluid does not leave through the hose.");
        else Feels(screw || hex ? "Firm. The face moves inward at every half turn." : "Firm, and it goes.");
        Home(side);
    }

    private void Home(Side side)
    {
        var home = _scenario.Sheet.Piston.HomeProtrusion?.Millimeters ?? PracticeFigures.HomeMm;
        var travel = Math.Max(_now.At(side).ProudMm - home, 0);
        var bores = Enumerable.Repeat(_scenario.Sheet.Piston.Diameter, _scenario.Sheet.Piston.PistonsPerCaliper);
        var level = _now.LevelMl + DisplacedFluid.Volume(bores, Length.FromMillimeters(travel)).Milliliters;
        var brim = (_scenario.Sheet.Reservoir.Band + _scenario.Sheet.Reservoir.Headspace).Milliliters;
        if (level > brim) Happens(HarmTo.Car, $"{Figure.Of(level - brim, 0)} mL run over the brim, down the paint.", TrapId.Overflows);
        _now = _now.With(side, c => c with { ProudMm = Math.Min(c.ProudMm, home), StandsOff = true }) with
        {
            LevelMl = Math.Min(level,
            brim)
        };
    }
}
