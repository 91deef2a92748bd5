using System.Text.Json;
using System.Text.Json.Serialization;
using PatientPawl.Core;
using PatientPawl.Core.Electric;
using PatientPawl.Core.Electric.Link;
using PatientPawl.Core.Hydraulics;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Practice;
using PatientPawl.Core.Proving;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Data;

/// <summary>
/// How enumerations are written in events, files and the API. A name here is kept for ever: stored jobs carry it. What C# calls the
/// value may change; a new value gets a new line; a value that is no longer made stays readable. A test compares the table with the
/// frozen samples and asks a name of every enumeration that an event can carry.
/// </summary>
internal static class WireNames
{
    /// <summary>One converter for each enumeration of the table.</summary>
    public static IReadOnlyList<JsonConverter> Converters { get; } =
    [
        Names((AlignmentRule.OnwardOnly, "onward-only"), (AlignmentRule.BackOffAllowed, "back-off-allowed")),
        Names((ApprovedAs.Car, "car"), (ApprovedAs.VanOrMinibus, "van-or-minibus")),
        Names((Architecture.CableScrew, "cable-screw"), (Architecture.PullerScrew, "puller-screw"),
            (Architecture.LeverPush, "lever-push"), (Architecture.MotorPush, "motor-push"), (Architecture.MotorTurn, "motor-turn"),
            (Architecture.HatShoes, "hat-shoes"), (Architecture.PullerHat, "puller-hat"), (Architecture.MotorHat, "motor-hat"),
            (Architecture.FixedHat, "fixed-hat"), (Architecture.SpotCaliper, "spot-caliper"), (Architecture.RearHex, "rear-hex"),
            (Architecture.Plain, "plain"), (Architecture.ElectricOnly, "electric-only")),
        Names((BedInRule.Series, "series"), (BedInRule.Gentle, "gentle")),
        Names((BleedMethod.TwoPerson, "two-person"), (BleedMethod.Vacuum, "vacuum"), (BleedMethod.Gravity, "gravity"),
            (BleedMethod.Pressure, "pressure"), (BleedMethod.TubeInFluid, "tube-in-fluid")),
        Names((BleedRule.WhenOpened, "when-opened"), (BleedRule.Always, "always")),
        Names((BootRule.Greased, "greased"), (BootRule.Dry, "dry")),
        Names((BootState.Free, "free"), (BootState.Wound, "wound"), (BootState.Torn, "torn"), (BootState.Wet, "wet"),
            (BootState.Bulged, "bulged")),
        Names((CaliperPlace.BehindAxle, "behind-axle"), (CaliperPlace.AheadOfAxle, "ahead-of-axle")),
        Names((CapRule.StaysOn, "stays-on"), (CapRule.OffWithRag, "off-with-rag")),
        Names((CheckAnswer.NotMade, "not-made"), (CheckAnswer.Confirms, "confirms"), (CheckAnswer.RulesOut, "rules-out")),
        Names((CircuitSplit.Diagonal, "diagonal"), (CircuitSplit.ByAxle, "by-axle")),
        Names((ClipsRule.Film, "film"), (ClipsRule.BareMetal, "bare-metal")),
        Names((Cracks.NotLooked, "not-looked"), (Cracks.None, "none"), (Cracks.Crazing, "crazing"),
            (Cracks.ToEdgeOrHat, "to-edge-or-hat")),
        Names((Judged.InnerLining, "inner-lining"), (Judged.OuterLining, "outer-lining"), (Judged.RotorThickness, "rotor-thickness"),
            (Judged.ThicknessVariation, "thickness-variation"), (Judged.TotalRunout, "total-runout"), (Judged.DrumDiameter, "drum-diameter"),
            (Judged.DrumOutOfRound, "drum-out-of-round"), (Judged.ShoeLining, "shoe-lining")),
        Names((FastenerRole.SlidePin, "slide-pin"), (FastenerRole.Bracket, "bracket"), (FastenerRole.RotorScrew, "rotor-screw"),
            (FastenerRole.ActuatorScrew, "actuator-screw"), (FastenerRole.Banjo, "banjo"), (FastenerRole.BleedScrew, "bleed-screw"),
            (FastenerRole.Wheel, "wheel"), (FastenerRole.SpotCaliper, "spot-caliper")),
        Names((PadEnd.Leading, "leading"), (PadEnd.Trailing, "trailing")),
        Names((SensorSide.Left, "left"), (SensorSide.Right, "right"), (SensorSide.Both, "both")),
        Names((FeltEffort.Easy, "easy"), (FeltEffort.Firm, "firm"), (FeltEffort.Hard, "hard")),
        Names((FindingKind.StuckPiston, "stuck-piston"), (FindingKind.BadRotor, "bad-rotor"), (FindingKind.BadPads, "bad-pads"),
            (FindingKind.BadShoes, "bad-shoes"), (FindingKind.FrozenPads, "frozen-pads"), (FindingKind.SeizedPin, "seized-pin"),
            (FindingKind.BrokenScrew, "broken-screw"), (FindingKind.StuckRotor, "stuck-rotor"), (FindingKind.StuckWheel, "stuck-wheel"),
            (FindingKind.Ridge, "ridge"), (FindingKind.WrongPart, "wrong-part"), (FindingKind.FluidShows, "fluid-shows"),
            (FindingKind.HoseUnsound, "hose-unsound"), (FindingKind.PipeUnsound, "pipe-unsound"), (FindingKind.BleedScrewBroken, "bleed-screw-broken"),
            (FindingKind.ThreadStripped, "thread-stripped"), (FindingKind.StudDamaged, "stud-damaged"), (FindingKind.BearingPlay, "bearing-play"),
            (FindingKind.BackingPlate, "backing-plate"), (FindingKind.SpeedSensor, "speed-sensor"), (FindingKind.CableFrayed, "cable-frayed"),
            (FindingKind.NewPartSpoiled, "new-part-spoiled"), (FindingKind.LampStays, "lamp-stays"), (FindingKind.PedalSinks, "pedal-sinks"),
            (FindingKind.Pulls, "pulls"), (FindingKind.NoiseOnDrive, "noise-on-drive"),
            (FindingKind.ScrewCameBroken, "screw-came-broken"), (FindingKind.ScrewRounded, "screw-rounded"),
            (FindingKind.HubStepped, "hub-stepped"), (FindingKind.HubPitted, "hub-pitted"),
            (FindingKind.PinWorn, "pin-worn"), (FindingKind.BushingSwollen, "bushing-swollen"),
            (FindingKind.PinAir, "pin-air"), (FindingKind.PinOverGreased, "pin-over-greased"),
            (FindingKind.PadTight, "pad-tight"), (FindingKind.ClipTouches, "clip-touches"),
            (FindingKind.PadLoose, "pad-loose"), (FindingKind.NoSensor, "no-sensor"),
            (FindingKind.SensorWorn, "sensor-worn"), (FindingKind.SensorLead, "sensor-lead"),
            (FindingKind.PadsByChoice, "pads-by-choice"), (FindingKind.RotorsByChoice, "rotors-by-choice"),
            (FindingKind.HungByHose, "hung-by-hose"), (FindingKind.LeverSticks, "lever-sticks"),
            (FindingKind.KeyMissing, "key-missing"), (FindingKind.WheelNotFlat, "wheel-not-flat"),
            (FindingKind.GreaseOnLining, "grease-on-lining"), (FindingKind.BringsBracket, "brings-bracket"),
            (FindingKind.ActuatorDead, "actuator-dead"), (FindingKind.MovesByItself, "moves-by-itself"),
            (FindingKind.StudsLubricated, "studs-lubricated"), (FindingKind.AntiSeizeOnScrew, "anti-seize-on-screw"),
            (FindingKind.PartMissing, "part-missing"), (FindingKind.PartsLeftOver, "parts-left-over"),
            (FindingKind.TurnsAtBottom, "turns-at-bottom"), (FindingKind.TwoStages, "two-stages"),
            (FindingKind.OtherWay, "other-way"), (FindingKind.BoltFirst, "bolt-first"),
            (FindingKind.BoltsLeftAlone, "bolts-left-alone"), (FindingKind.SidesMixedUp, "sides-mixed-up"),
            (FindingKind.PlateMotorDead, "plate-motor-dead"), (FindingKind.StarWheelSeized, "star-wheel-seized"),
            (FindingKind.HosePinched, "hose-pinched")),
        Names((Fitting.WearSensor, "wear-sensor"), (Fitting.RattleSpring, "rattle-spring"), (Fitting.HoseBracket, "hose-bracket"),
            (Fitting.PinCaps, "pin-caps"), (Fitting.HatPlug, "hat-plug")),
        Names((FluidGrade.Dot3, "dot3"), (FluidGrade.Dot4, "dot4"), (FluidGrade.Class6, "class6"), (FluidGrade.Dot51, "dot51"),
            (FluidGrade.Dot5, "dot5"), (FluidGrade.MineralOil, "mineral-oil")),
        Names((FluidRoomRule.DrawOff, "draw-off"), (FluidRoomRule.OpenBleeder, "open-bleeder")),
        Names((HoldingRule.HoldUntilCracked, "hold-until-cracked"), (HoldingRule.ReleasedFromStart, "released-from-start")),
        Names((HoseRule.NeverPinch, "never-pinch"), (HoseRule.Clamp, "clamp")),
        Names((InstrumentUse.Outside, "outside"), (InstrumentUse.Inside, "inside"), (InstrumentUse.Depth, "depth"),
            (InstrumentUse.Deflection, "deflection")),
        Names((JobGoal.Finish, "finish"), (JobGoal.CloseUp, "close-up"), (JobGoal.Yard, "yard"),
            (JobGoal.NightAssembled, "night-assembled"), (JobGoal.NightOnStands, "night-on-stands")),
        Names((JobScope.Pads, "pads"), (JobScope.PadsAndRotors, "pads-and-rotors"), (JobScope.Shoes, "shoes"),
            (JobScope.PadsAndShoes, "pads-and-shoes"), (JobScope.PadsRotorsAndShoes, "pads-rotors-and-shoes"),
            (JobScope.Inspect, "inspect")),
        Names((JobPurpose.Real, "real"), (JobPurpose.Demo, "demo"), (JobPurpose.Practice, "practice"), (JobPurpose.Test, "test")),
        Names((ElectricAct.ReadCodes, "read-codes"), (ElectricAct.Release, "release"), (ElectricAct.IntoService, "into-service"), (ElectricAct.Close, "close"),
            (ElectricAct.Apply, "apply"), (ElectricAct.Cycle, "cycle"), (ElectricAct.ClearCodes, "clear-codes")),
        Names((RoutineStatus.NeverStarted, "never-started"), (RoutineStatus.Running, "running"), (RoutineStatus.Done, "done"), (RoutineStatus.Stopped, "stopped"),
            (RoutineStatus.Failed, "failed")),
        Names((SideEnd.None, "none"), (SideEnd.Moving, "moving"), (SideEnd.Clamped, "clamped"), (SideEnd.Released, "released"), (SideEnd.AtBackStop, "at-back-stop"),
            (SideEnd.NoMotion, "no-motion"), (SideEnd.TravelLimit, "travel-limit"), (SideEnd.OutOfTime, "out-of-time"), (SideEnd.Open, "open"),
            (SideEnd.Stopped, "stopped"), (SideEnd.LowVolts, "low-volts"), (SideEnd.Already, "already")),
        Names((TraceDirection.Apply, "apply"), (TraceDirection.Release, "release")),
        Names((TraceKind.NoCurrent, "no-current"), (TraceKind.Seized, "seized"), (TraceKind.NothingToClamp, "nothing-to-clamp"), (TraceKind.Clamps, "clamps"),
            (TraceKind.LaterApply, "later-apply"), (TraceKind.RunsHeavy, "runs-heavy"), (TraceKind.DragsPiston, "drags-piston"),
            (TraceKind.WeakSupply, "weak-supply"), (TraceKind.Releases, "releases"), (TraceKind.IntoService, "into-service")),
        Names((Known.NotKnown, "not-known"), (Known.Yes, "yes"), (Known.No, "no")),
        Names((LimitKind.Minimum, "minimum"), (LimitKind.Maximum, "maximum")),
        Names((LockerRule.WhereCalledFor, "where-called-for"), (LockerRule.Always, "always")),
        Names((Look.CabinControl, "cabin-control"), (Look.BrakeByWire, "brake-by-wire"), (Look.PullerBox, "puller-box"),
            (Look.CaliperLever, "caliper-lever"), (Look.CaliperMotor, "caliper-motor"), (Look.PlateCable, "plate-cable"),
            (Look.PlateMotor, "plate-motor"), (Look.SecondCaliper, "second-caliper"), (Look.HatHole, "hat-hole"),
            (Look.BrakeHose, "brake-hose"), (Look.OpposedPistons, "opposed-pistons"), (Look.RearHexPlug, "rear-hex-plug"),
            (Look.PistonFace, "piston-face"), (Look.PadPin, "pad-pin"), (Look.PadSpringClip, "pad-spring-clip"),
            (Look.PushMoves, "push-moves")),
        Names((LookOverAnswer.Yes, "yes"), (LookOverAnswer.No, "no"), (LookOverAnswer.NotKnown, "not-known")),
        Names((Measurand.DrumDiameter, "drum-diameter"), (Measurand.NewDrumDiameter, "new-drum-diameter"), (Measurand.Ridge, "ridge"),
            (Measurand.OverShoes, "over-shoes"), (Measurand.ShoeLining, "shoe-lining"), (Measurand.RotorThickness, "rotor-thickness"),
            (Measurand.RotorRunout, "rotor-runout"), (Measurand.PadLining, "pad-lining")),
        Names((NightKind.Assembled, "assembled"), (NightKind.OnStands, "on-stands")),
        Names((PadEarsRule.Greased, "greased"), (PadEarsRule.Dry, "dry")),
        Names((PairsRule.StuckOnly, "stuck-only"), (PairsRule.BothSides, "both-sides")),
        Names((Part.Rotor, "rotor"), (Part.Drum, "drum"), (Part.Shoes, "shoes"), (Part.Pads, "pads"), (Part.HubFace, "hub-face")),
        Names((PilotRule.Smear, "smear"), (PilotRule.Nothing, "nothing")),
        Names((PistonBank.Inner, "inner"), (PistonBank.Outer, "outer")),
        Names((Competence.Identify, "identify"), (Competence.Retract, "retract"), (Competence.Shoes, "shoes"), (Competence.Measure, "measure"),
            (Competence.Sequence, "sequence"), (Competence.Electric, "electric"), (Competence.Torque, "torque"), (Competence.Fluid, "fluid"),
            (Competence.Prove, "prove"), (Competence.Record, "record")),
        Names((CornerFault.NotchedFace, "notched-face"), (CornerFault.PistonStuck, "piston-stuck"), (CornerFault.BootSticks, "boot-sticks"),
            (CornerFault.BootTorn, "boot-torn"), (CornerFault.PadsFrozen, "pads-frozen"), (CornerFault.PinSeized, "pin-seized"),
            (CornerFault.HoseCollapsed, "hose-collapsed"), (CornerFault.ScrewBroken, "screw-broken"), (CornerFault.WrongPart, "wrong-part"),
            (CornerFault.SensorMissing, "sensor-missing")),
        Names((CarFault.WeakBattery, "weak-battery"), (CarFault.ToolLostClosing, "tool-lost-closing"), (CarFault.PressurisesItself, "pressurises-itself")),
        Names((TrapId.ClampOnScrew, "clamp-on-screw"), (TrapId.TightCable, "tight-cable"), (TrapId.NotchedMotor, "notched-motor"),
            (TrapId.ClosedCaliperOff, "closed-caliper-off"), (TrapId.WokenByKey, "woken-by-key"), (TrapId.StarWheelWrongWay, "star-wheel-wrong-way"),
            (TrapId.WithinDoubt, "within-doubt"), (TrapId.HotDrum, "hot-drum"), (TrapId.UnitSlip, "unit-slip"), (TrapId.OthersFigure, "others-figure"),
            (TrapId.CrowfootForgotten, "crowfoot-forgotten"), (TrapId.Overflows, "overflows"), (TrapId.PedalNotPumped, "pedal-not-pumped"),
            (TrapId.BracketBeforeShoes, "bracket-before-shoes"), (TrapId.ScrewForgotten, "screw-forgotten"), (TrapId.PadsOrPins, "pads-or-pins"),
            (TrapId.BrokenScrew, "broken-screw"), (TrapId.TornBoot, "torn-boot"), (TrapId.CollapsedHose, "collapsed-hose"),
            (TrapId.WrongPart, "wrong-part"), (TrapId.SensorOneSide, "sensor-one-side"), (TrapId.WeakBattery, "weak-battery"),
            (TrapId.ToolLostClosing, "tool-lost-closing"), (TrapId.PressurisesItself, "pressurises-itself"), (TrapId.StuckForced, "stuck-forced"),
            (TrapId.NothingRecorded, "nothing-recorded")),
        Names((PracticeThing.Boot, "boot"), (PracticeThing.Pads, "pads"), (PracticeThing.SlidePins, "slide-pins"), (PracticeThing.Hose, "hose"),
            (PracticeThing.RotorScrew, "rotor-screw"), (PracticeThing.NewParts, "new-parts"), (PracticeThing.PistonFace, "piston-face"),
            (PracticeThing.StarWheel, "star-wheel")),
        Names((PracticeWay.Guided, "guided"), (PracticeWay.Alone, "alone")),
        Names((PropertyClass.NotKnown, "not-known"), (PropertyClass.C48, "c48"), (PropertyClass.C58, "c58"), (PropertyClass.C88, "c88"),
            (PropertyClass.C98, "c98"), (PropertyClass.C109, "c109"), (PropertyClass.C129, "c129")),
        Names((PumpRule.HalfStrokes, "half-strokes"), (PumpRule.FullStrokes, "full-strokes")),
        Names((ReadingKind.ReservoirLevel, "reservoir-level"), (ReadingKind.InnerPad, "inner-pad"), (ReadingKind.OuterPad, "outer-pad"),
            (ReadingKind.RotorThickness, "rotor-thickness"), (ReadingKind.PistonProtrusion, "piston-protrusion"),
            (ReadingKind.BatteryVoltage, "battery-voltage"), (ReadingKind.FluidDrawn, "fluid-drawn"),
            (ReadingKind.TurnsMade, "turns-made"), (ReadingKind.Cycles, "cycles"), (ReadingKind.PedalStrokes, "pedal-strokes"),
            (ReadingKind.ClicksBack, "clicks-back"), (ReadingKind.ClicksOut, "clicks-out"),
            (ReadingKind.OuterProtrusion, "outer-protrusion")),
        Names((ReasonKind.Input, "input"), (ReasonKind.Default, "default"), (ReasonKind.Formula, "formula"),
            (ReasonKind.Evidence, "evidence"), (ReasonKind.Conclusion, "conclusion")),
        Names((ShownRule.NotAsked, "not-asked"), (ShownRule.Asked, "asked")),
        Names((RetorqueRule.Recheck, "recheck"), (RetorqueRule.NotNeeded, "not-needed")),
        Names((RetractDepthRule.AllTheWayHome, "all-the-way-home"), (RetractDepthRule.AsFarAsNeeded, "as-far-as-needed")),
        Names((RetractMethod.TurnAndPush, "turn-and-push"), (RetractMethod.StraightPush, "straight-push"),
            (RetractMethod.SpindleThenPush, "spindle-then-push"), (RetractMethod.SpindleThenTurn, "spindle-then-turn"),
            (RetractMethod.SpindleThenDecide, "spindle-then-decide"), (RetractMethod.RearHexAndPush, "rear-hex-and-push"),
            (RetractMethod.OpposedPush, "opposed-push"), (RetractMethod.MakersProcedure, "makers-procedure")),
        Names((RetractPrecondition.CableSlack, "cable-slack"), (RetractPrecondition.LeverOnStop, "lever-on-stop"),
            (RetractPrecondition.PullerInService, "puller-in-service"), (RetractPrecondition.SpindleBack, "spindle-back"),
            (RetractPrecondition.RoomInReservoir, "room-in-reservoir"), (RetractPrecondition.PartsCompared, "parts-compared"),
            (RetractPrecondition.BootFree, "boot-free")),
        Names((RoomVerdict.FitsUnderMax, "fits-under-max"), (RoomVerdict.OverMaxUnderBrim, "over-max-under-brim"),
            (RoomVerdict.DrawOffFirst, "draw-off-first"), (RoomVerdict.DrawWhileRetracting, "draw-while-retracting")),
        Names((Seen.Yes, "yes"), (Seen.No, "no"), (Seen.NotKnown, "not-known"), (Seen.HandLever, "hand-lever"),
            (Seen.FootPedal, "foot-pedal"), (Seen.Switch, "switch"), (Seen.PlainCup, "plain-cup"), (Seen.TwoNotches, "two-notches"),
            (Seen.Cross, "cross"), (Seen.ThreeLobes, "three-lobes"), (Seen.VShape, "v-shape")),
        Names((ServiceRoute.ScanTool, "scan-tool"), (ServiceRoute.SpindleByHand, "spindle-by-hand"), (ServiceRoute.InCar, "in-car"),
            (ServiceRoute.PullerRelease, "puller-release")),
        Names((Side.Left, "left"), (Side.Right, "right")),
        Names((SidesRule.OtherKept, "other-kept"), (SidesRule.OneThenOther, "one-then-other"), (SidesRule.InStep, "in-step")),
        Names((SignOffRule.Technician, "technician"), (SignOffRule.LeadAlso, "lead-also")),
        Names((StarWheelRule.ByClearance, "by-clearance"), (StarWheelRule.ByCount, "by-count")),
        Names((StopSign.ComesOut, "comes-out"), (StopSign.SpinsFree, "spins-free"), (StopSign.StopsShort, "stops-short"),
            (StopSign.SpringsBack, "springs-back"), (StopSign.BootTwists, "boot-twists")),
        Names((StudsRule.Dry, "dry"), (StudsRule.Lubricated, "lubricated")),
        Names((TorqueQuestionKind.Role, "role"), (TorqueQuestionKind.Strength, "strength"), (TorqueQuestionKind.Wrench, "wrench")),
        Names((TorqueUnit.Nm, "nm"), (TorqueUnit.LbfFt, "lbf-ft"), (TorqueUnit.LbfIn, "lbf-in"), (TorqueUnit.KgfM, "kgf-m")),
        Names((TurnDirection.Clockwise, "clockwise"), (TurnDirection.Anticlockwise, "anticlockwise")),
        Names((VaneLean.None, "none"), (VaneLean.Clockwise, "clockwise"), (VaneLean.Anticlockwise, "anticlockwise")),
        Names((Verdict.Inside, "inside"), (Verdict.TooCloseToCall, "too-close-to-call"), (Verdict.Outside, "outside"), (Verdict.NotYetEnough, "not-yet-enough")),
        Names((WheelWay.Up, "up"), (WheelWay.Down, "down")),
        Names((WrenchType.Setting, "setting"), (WrenchType.BendingBeam, "bending-beam")),
    ];

    private static JsonStringEnumConverter<T> Names<T>(params (T Value, string Name)[] names) where T : struct, Enum => new(new Table<T>(names), allowIntegerValues: false);

    private sealed class Table<T>(IEnumerable<(T Value, string Name)> names) : JsonNamingPolicy where T : struct, Enum
    {
        private readonly Dictionary<string, string> _names = names.ToDictionary(n => n.Value.ToString(), n => n.Name, StringComparer.Ordinal);

        public override string ConvertName(string name) =>
            _names.TryGetValue(name, out var wire) ? wire : throw new InvalidOperationException($"{typeof(T).Name}.{name} has no wire name.");
    }
}
