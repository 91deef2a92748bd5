using PatientPawl.Core.Workshop;
using static PatientPawl.Core.Planning.Given;
using static PatientPawl.Core.Planning.Place;

namespace PatientPawl.Core.Planning.Steps;

/// <summary>Bright, flat, free to slide.</summary>
internal static class Clean
{
    public static IReadOnlyList<StepType> All { get; } =
    [
        new("plate-clean", "Plate clean", Stage.Clean, Lane.Corner, Place.Corner, 4, "Shoes that drag on their rests leave the drum crooked.")
        {
            Applies = s => s.IsHat,
            Needs = [Corner.Shoes.Is(ShoesState.Off)],
            Makes = [Corner.PlateClean.To(Done.Yes)],
            Concerns = Concern.HandsInHat,
            Cautions = [Cautions.Dust],
            Parts = ["high-temperature grease"],
            How = "Wet, never blown. A trace of grease on the rests and the adjuster's thread, none near a lining.",
        },
        new("hub-clean", "Hub face clean", Stage.Clean, Lane.Corner, Place.Corner, 6, "A speck of rust here is runout at the rim.")
        {
            Needs = [Corner.Rotor.Is(Rotor.Off)],
            Makes = [Corner.HubClean.To(Done.Yes)],
            Cautions = [Cautions.Eyes, Cautions.Dust],
            PartsFor = s => s.Rules.HubPilot == PilotRule.Smear ? ["anti-seize for the pilot lip only"] : [],
            HowFor = s => "Bright and flat. " + (s.Rules.HubPilot == PilotRule.Smear ? "A smear of anti-seize on the pilot lip only, none on face or studs." : "The pilot lip stays clean and dry."),
        },
        new("lands-clean", "Clean bracket abutments", Stage.Clean, Lane.Corner, Place.Corner, 5, "Pads must slide by hand in the bracket.")
        {
            Needs = [WheelOff, PadsOut, CaliperClear, CaliperThere],
            Makes = [Corner.LandsClean.To(Done.Yes)],
            Concerns = Concern.HandsIn,
            Cautions = [Cautions.Dust, Cautions.Eyes],
            PartsFor = s =>
            [
                "new clips",
                .. s.Rules.UnderClips == ClipsRule.Film ? ["protective film for under the clips"] : Array.Empty<string>(),
                .. s.Rules.PadEars == PadEarsRule.Greased ? ["ceramic or silicone brake grease for the pad ears"] : Array.Empty<string>(),
            ],
            HowFor = s => $"To bare metal; {(s.Rules.UnderClips == ClipsRule.Film ? "a thin film under the new clips" : "the new clips go on bare metal")}. "
                + (s.Rules.PadEars == PadEarsRule.Greased ? "A trace of ceramic or silicone grease where the ears slide." : "The ears slide dry on coated hardware."),
        },
        new("hardware-new", "New hardware", Stage.Clean, Lane.Corner, Place.Corner, 5, "Pads that froze once freeze again on old clips.")
        {
            Needs = [WheelOff, PadsOut, Corner.LandsClean.Is(Done.Yes), Corner.Hardware.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.Hardware.To(Asked.Done)],
            Concerns = Concern.HandsIn,
            Parts = ["hardware kit: clips and springs"],
            How = "Old clips off, abutments to bare metal under them, new clips home. A new pad slides by hand.",
        },
        new("pin-kit", "New slide pins", Stage.Clean, Lane.Corner, Place.Corner, 10, "A pin that seized is scored, or its bore is: the caliper would hang up again.")
        {
            Applies = s => !s.IsFixed,
            Needs = [WheelOff, Corner.Caliper.Is(Caliper.Hung, Caliper.Swung, Caliper.Away), Corner.PinKit.Is(Asked.Due, Asked.LeftOpen)],
            Makes = [Corner.PinKit.To(Asked.Done), Corner.PinsGreased.To(Done.No)],
            Outcomes = [new("bracket", "It takes a bracket", [Corner.PinKit.To(Asked.Nothing), Corner.BracketSwap.To(Asked.Due)])],
            Concerns = Concern.HandsIn,
            Parts = ["slide-pin kit, or a bracket"],
            Tools = ["bore brush"],
            How = "Pin out with heat from the tool only, bore brushed clean. A pin that still drags: a bracket.",
        },
        new("pins-greased", "Pins greased", Stage.Clean, Lane.Corner, Place.Corner, 4, "A dry pin wears the outer pad.")
        {
            Applies = s => !s.IsFixed,
            Needs = [WheelOff, Corner.Caliper.Is(Caliper.Hung, Caliper.Swung, Caliper.Away), Corner.PinKit.Is(Asked.Nothing, Asked.Done, Asked.LeftOpen), Corner.PinSeat.Is(Asked.Nothing, Asked.Done, Asked.LeftOpen)],
            Makes = [Corner.PinsGreased.To(Done.Yes)],
            Concerns = Concern.HandsIn,
            Parts = ["synthetic or silicone rubber-safe grease"],
            How = "One pin at a time, the pivot's too, thin, each back in its own bore. Each bushed pin in the bore it came from. Never copper, petroleum grease or anti-seize near rubber.",
        },
    ];
}
