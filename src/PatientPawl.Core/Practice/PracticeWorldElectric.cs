using PatientPawl.Core.Jobs;

namespace PatientPawl.Core.Practice;

/// <summary>The parking brake as it wakes, goes into service and closes.</summary>
public sealed partial class PracticeWorld
{
    private void Wake()
    {
        var open = Sides.Both.Where(s => !_now.At(s).CaliperOn && !_now.At(s).Unplugged && OnCaliper(s)).ToArray();
        if (IsElectric && !_now.InService && open.Length > 0)
            Happens(HarmTo.Person,
                $"The car wakes and applies its brake: the {open[0].Word()} piston comes out of an open caliper, "
                + "with a hand in front of it.",
                TrapId.WokenByKey);
    }

    private void IntoService(StepDone? done)
    {
        if (done is { Found: not null }) return;
        if (_scenario.Truth.Has(CarFault.WeakBattery) && !_now.BatteryHeld)
        {
            Happens(HarmTo.Car,
                $"{Figure.Of(BatteryVolts, 1)} V at rest sags under the motors: they stop half-way, and nobody knows where.",
                TrapId.WeakBattery);
        }

        _now = _now with { InService = true, Applied = false };
        foreach (var side in Sides.Both) _now = _now.With(side, c =>
            c with { SpindleBack = HasMotorAtCaliper || c.SpindleBack, LeverFree = true });
    }

    private void Close(string step, StepDone? done)
    {
        foreach (var side in Sides.Both.Where(s => OnCaliper(s) && !_now.At(s).CaliperOn))
        {
            Happens(IsElectric ? HarmTo.Person : HarmTo.Part,
                $"The {side.Word()} caliper is off: " + (IsElectric
                    ? "its spindle drives the piston out until the travel ends, and whatever is in front of it with it."
                    : "the lever winds its piston out of the bore."),
                TrapId.ClosedCaliperOff);
        }

        foreach (var side in Sides.Both.Where(s => InHat(s) && !_now.At(s).RotorOn))
            Happens(HarmTo.Part, $"The {side.Word()} shoes are pushed off their anchors: there is no drum round them.",
                TrapId.ClosedCaliperOff);
        if (step is "service-closed" or "first-apply" && _scenario.Truth.Has(CarFault.ToolLostClosing) && !_now.ToolWasLost)
        {
            if (done is { Found: null })
                Happens(HarmTo.Car,
                    "The tool was lost half-way and said nothing more: one side still stands open, and it counts as closed.",
                    TrapId.ToolLostClosing);
            if (done is not null) _now = _now with { ToolWasLost = true };
        }

        _now = _now with { Applied = true, InService = _now.InService && done is { Found: not null } };
        if (HasMotorAtCaliper && done is not { Found: not null })
            foreach (var side in Sides.Both) _now = _now.With(side, c => c with { SpindleBack = false });
    }

    private void Routine(RoutineEnded e)
    {
        var open = Sides.Both.Any(s => (s == Side.Left ? e.Left : e.Right) == Electric.Link.SideEnd.AtBackStop);
        _now = _now with { InService = open, Applied = !open };
        foreach (var side in Sides.Both) _now = _now.With(side, c =>
            c with { SpindleBack = open && HasMotorAtCaliper, LeverFree = open || c.LeverFree });
    }
}
