using static PatientPawl.Core.Planning.Given;

namespace PatientPawl.Core.Planning.Steps;

/// <summary>What was found and is put right beside the job itself. Each step stands in a plan only once it was found.</summary>
internal static class Mend
{
    private static readonly Requirement CaliperOnItsHose = Corner.Caliper.Is(Caliper.On, Caliper.Hung, Caliper.Swung);

    public static IReadOnlyList<StepType> All { get; } =
    [
        new("hub-mended", "Put hub or thread right", Stage.Clean, Lane.Corner, Place.Corner, 30, "What carries the brake or the wheel is sound before it carries them again.")
        {
            Needs = [WheelOff, PadsOut, CaliperClear, Corner.HubMend.Is(Asked.Due)],
            Makes = [Corner.HubMend.To(Asked.Done)],
            Concerns = Concern.HandsIn,
            How = "By the maker's data, with what has to come off for it. Note what was done.",
        },
        new("speed-sensor-mended", "Put speed sensor right", Stage.Clean, Lane.Corner, Place.Corner, 15, "A sensor that was struck or torn lights the warning lamp at the first drive.")
        {
            Needs = [WheelOff, Corner.SpeedSensorMend.Is(Asked.Due)],
            Makes = [Corner.SpeedSensorMend.To(Asked.Done)],
            Concerns = Concern.HandsIn,
            How = "Sensor, ring and lead, clipped as it lay. The lamp is asked at the end.",
        },
        new("cable-renewed", "New parking cable", Stage.Fit, Lane.Corner, Place.Corner, 30, "A frayed cable drags, and one day it parts.")
        {
            Applies = s => s.HasCable,
            Needs = [WheelOff, Lifted, Car.Cable.Is(CableRun.Slack), Corner.CableMend.Is(Asked.Due)],
            Makes = [Corner.CableMend.To(Asked.Done)],
            Concerns = Concern.HandsIn | Concern.UnderCar,
            Parts = ["parking brake cable"],
            Cautions = [Cautions.Stands],
            How = "Laid and clipped as the old one lay, nothing rubbing. The lever returns to its stop by itself.",
        },
        new("hose-renewed", "New brake hose", Stage.Fit, Lane.Corner, Place.Corner, 20, "A hose that is cracked bursts; one whose inner wall has let go holds the brake on.")
        {
            Needs = [WheelOff, CaliperOnItsHose, Corner.HoseBracket.Is(Fitted.None, Fitted.Off), Corner.HoseMend.Is(Asked.Due)],
            Makes = [Corner.HoseMend.To(Asked.Done), Corner.Hose.To(HoseState.Snug), Corner.Hydraulics.To(HydraulicsState.Open)],
            Concerns = Concern.HandsIn | Concern.OpensBrake,
            Tools = ["flare-nut spanner", "hose plug"],
            Parts = ["brake hose", "new sealing washers"],
            Cautions = [Cautions.Fluid, Cautions.Eyes],
            How = "Plug the pipe, new hose with new washers, banjo by hand, free of twist with the wheel turned either way. Its corner is bled.",
        },
        new("bleed-screw-renewed", "New bleed screw", Stage.Close, Lane.Corner, Place.Corner, 15, "A corner that cannot be bled cannot be proved.")
        {
            Needs = [WheelOff, CaliperOnItsHose, Corner.ScrewMend.Is(Asked.Due)],
            Makes = [Corner.ScrewMend.To(Asked.Done), Corner.BleedScrew.To(Bolts.Snug), Corner.Hydraulics.To(HydraulicsState.Open)],
            Outcomes = [new("stays", "It does not come out", [Corner.ScrewMend.To(Asked.Due)]) { Reports = Jobs.FindingKind.StuckPiston }],
            Concerns = Concern.HandsIn | Concern.OpensBrake,
            Tools = ["six-point spanner", "penetrating oil"],
            Parts = ["bleed screw"],
            Cautions = [Cautions.Fluid, Cautions.Eyes],
            How = "Oil and time, a six-point spanner, light blows on its head. One that stays in takes its caliper with it.",
        },
        new("trouble-settled", "Find the cause", Stage.Prove, Lane.Car, Place.RoundCar, 15, "What the car shows has a cause, and the car stays until it is found.")
        {
            Needs = [Car.Trouble.Is(Asked.Due)],
            Makes = [Car.Trouble.To(Asked.Done)],
            How = "What is wrong at a corner is reported there, and the plan goes back to it. Note what it was.",
        },
    ];
}
