using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Tests.Planning.Twin;

/// <summary>What a fastener really is, not what anyone believes.</summary>
internal enum Nut { Tight, Loose, Out, ByHand }

/// <summary>One rear corner of a real car: things of steel, in their places.</summary>
internal sealed class PhysicalCorner
{
    public bool WheelOn = true, RotorOn = true, RotorNew, RotorOily = true, BracketOn = true, CaliperOn = true, CaliperAway, CaliperNew, PadsIn = true, PadsNew, TwoNuts, Swung;
    public bool PistonIn, SpindleBack, LeverOnStop, HasAir, Wiped, HoseOff, ActuatorOn = true, ActuatorPlugged = true, ShoesOn = true, ShoesNew, ShoesBackedOff, SpotOn = true;
    public bool CableEndOn = true, HubClean, LandsClean, PinsGreased, PlateClean, Judged, LookedAt, ShoesJudged, WrongParts, Ridge, ScrewBroken, ScrewLeftOut, RotorStuck, WheelStuck, ClipsBad, PinsBad, HoseBad, BleedScrewBad, CableBad, HubBad, SpeedSensorBad, NoSensor, NoRoom, TurnsHome, MethodKnown = true;
    public Nut Nuts = Nut.Tight, Screws = Nut.Tight, BracketBolts = Nut.Tight, PinBolts = Nut.Tight, Banjo = Nut.Tight, BleedScrew = Nut.Tight, SpotBolts = Nut.Tight, ActuatorScrews = Nut.Tight;
    public bool HasScrews, OldBracketBolts, OldPinBolts, SpareBracketBolts, SparePinBolts, LeadLooked;
    // What is not as it should be, by the step that puts it right.
    public HashSet<string> Wrong = [];
    public HashSet<Fitting> Off = [];
    public int TurnedAt = -1, TurnedCycle;
    public bool HoseClamped, WrongCaliper, UnfitCaliper, Wet, BracketNew;
    public bool Opened => !CaliperOn || !PadsIn;
}

/// <summary>
/// A real car on a real floor, written from the trade and sharing nothing with the planner: it knows how things stand, whatever anybody has
/// clicked. What touches the pedal's way, the mechanism's way or the wheels counts the moments, so that an older proof is seen to be old.
/// </summary>
internal sealed class PhysicalCar
{
    public bool LookedOver, OnStands, Chocked, Neutral, IgnitionOn, Asleep, KeyAway, Charger, AutoApplyOff, Tagged, CapOff, InService, ToolHolds, PipesUnsound, SelfPressing, Reapplies, RotorsGo, Compared, ReservoirSeen, RightPartMissing, BedDone, Trouble, LampLit;
    public bool Applied = true;

    /// <summary>What nobody put right and the lead left as it is.</summary>
    public HashSet<string> LeftOpen = [];

    public bool PedalSoft, Creeps, TaggedOffRoad, SelfPressureWasOff, UnfitPads, UnfitRotors, UnfitShoes;

    /// <summary>Somebody turned both hubs by hand since the brake was last worked.</summary>
    public bool ReleaseSeen;

    /// <summary>The lead looked at both wheels since the last nut was cracked.</summary>
    public bool WheelsSigned;
    public bool CableSlack;
    public int Cycles, Touched, PedalAt = -1, LeaksAt = -1, LevelAt = -1, ClosedAt = -1, Mechanism, HeldAt = -1, DrivenAt = -1, CodesAt = -1, FailedAt = -1;
    public PhysicalCorner Left = new(), Right = new();

    public PhysicalCorner At(Side side) => side == Side.Left ? Left : Right;
    public IEnumerable<PhysicalCorner> Both => [Left, Right];
    public bool WontHold => FailedAt == Mechanism && ClosedAt != Mechanism;
    public bool PedalUp => PedalAt == Touched;
    public void Touch() => Touched++;
    public void Moved() => Mechanism++;

    /// <summary>A caliper, its pads or its piston moved: to the parking brake it matters only where that works through the caliper.</summary>
    public void MovedCaliper()
    {
        if (Made.IsCaliperType) Mechanism++;
    }

    public void MovedRotor()
    {
        if (Made.IsHat || Made.IsSpot) Mechanism++;
    }

    /// <summary>How the brake is really worked, by what it is made of.</summary>
    public required PlanSetup Made { get; init; }

    public static PhysicalCar For(PlanSetup setup, bool pipesUnsound = false, bool reapplies = false)
    {
        var car = new PhysicalCar { Made = setup, SelfPressing = true, RotorsGo = setup.Rotors, PipesUnsound = pipesUnsound, Reapplies = reapplies };
        foreach (var corner in car.Both)
        {
            corner.HasScrews = setup.RotorHasScrews;
            corner.TurnsHome = (corner == car.Left ? setup.Left : setup.Right).Architecture is Architecture.CableScrew or Architecture.PullerScrew or Architecture.RearHex or Architecture.MotorTurn;
            corner.MethodKnown = !(corner == car.Left ? setup.Left : setup.Right).MethodUndecided;
        }

        return car;
    }

    public PhysicalCar Copy()
    {
        var copy = (PhysicalCar)MemberwiseClone();
        (copy.Left, copy.Right) = (Copied(Left), Copied(Right));
        copy.LeftOpen = [.. LeftOpen];
        return copy;
    }

    private static PhysicalCorner Copied(PhysicalCorner corner)
    {
        var copy = (PhysicalCorner)typeof(object).GetMethod("MemberwiseClone", System.Reflection.BindingFlags.NonPublic | System.Reflection.BindingFlags.Instance)!.Invoke(corner, null)!;
        copy.Off = [.. corner.Off];
        copy.Wrong = [.. corner.Wrong];
        return copy;
    }
}

/// <summary>A step was offered that nobody could do on this car.</summary>
internal sealed class ImpossibleException(string why) : Exception(why);
