using System.Reflection;
using PatientPawl.Core.Tests.Pads;
using PatientPawl.Core.Tests.Planning;
using PatientPawl.Core.Tests.Planning.Twin;
using PatientPawl.Core.Tests.Torque;

namespace PatientPawl.Core.Tests.Jobs;

/// <summary>What people decide, discover and do differently at a car, line by line, each with the test that shows it.</summary>
public class AtTheCarTable
{
    private static readonly (string Line, Type In, string Shown)[] Lines =
    [
        // Order and shortcuts.
        ("one side complete, the other kept assembled as the pattern", typeof(PlannerTests), nameof(PlannerTests.Three_schools_the_other_side_kept_together_one_after_the_other_or_in_step)),
        ("a late finding on side two opens side one by reverse steps", typeof(SurpriseTests), nameof(SurpriseTests.A_rotor_found_after_the_left_side_is_complete_opens_it_again_and_says_so)),
        ("a lever against the old pad", typeof(ByChoiceTests), nameof(ByChoiceTests.A_pushed_piston_is_levered_behind_a_rotor_that_goes_away_and_judged_once_the_caliper_is_off)),
        ("never against a rotor that stays", typeof(ByChoiceTests), nameof(ByChoiceTests.Nothing_is_levered_against_a_rotor_that_stays_on_a_screw_or_before_the_way_is_known_or_against_a_mechanism)),
        ("a trial of a suspected piston before parts are bought", typeof(ByChoiceTests), nameof(ByChoiceTests.A_suspected_piston_is_tried_before_new_parts_are_there_but_not_against_a_mechanism_or_without_room)),
        ("actuator left plugged, its lead slack", typeof(ByChoiceTests), nameof(ByChoiceTests.In_service_the_actuator_stays_plugged_and_the_other_one_is_not_unplugged_while_a_caliper_hangs_on_it)),
        ("caliper swung up on one pin", typeof(ByChoiceTests), nameof(ByChoiceTests.A_caliper_that_is_swung_up_counts_as_off_and_both_its_bolts_are_torqued_after_its_pins_were_greased)),
        ("cable end off by choice", typeof(ByChoiceTests), nameof(ByChoiceTests.A_stiff_cable_comes_off_by_choice_and_goes_back_on_before_it_is_taken_up)),
        ("only as far as needed", typeof(RetractionJobTests), nameof(RetractionJobTests.Only_as_far_as_needed_ends_where_the_new_parts_go_in)),
        ("a little in, the caliper tried over the pads, a little more", typeof(RetractionJobTests), nameof(RetractionJobTests.A_caliper_is_tried_over_its_pads_a_little_at_a_time_and_what_passes_is_far_enough)),
        ("ignition on throughout, where the tool says so", typeof(ByChoiceTests), nameof(ByChoiceTests.The_ignition_is_left_on_by_the_tools_word_with_charger_and_tags_and_nothing_is_unplugged)),
        ("how long the battery would carry it", typeof(ByChoiceTests), nameof(ByChoiceTests.How_long_a_battery_carries_the_ignition_is_reckoned_from_its_voltage_at_rest)),
        ("pads tried in the bracket, ears dressed, tried again", typeof(AtTheCarTests), nameof(AtTheCarTests.A_pad_that_stays_tight_gets_its_ways_and_each_try_is_a_line_of_the_log)),
        ("bleeding by choice, that corner", typeof(ByChoiceTests), nameof(ByChoiceTests.A_corner_is_bled_by_choice_and_its_wheel_waits_for_it)),
        ("a soft pedal is a finding with its causes", typeof(FoundAtTheCarTests), nameof(FoundAtTheCarTests.On_the_car_it_brings_its_step_and_what_it_makes_doubtful_is_proved_again)),
        ("wheels on last, rotor held before anything turns or presses on it", typeof(TwinTests), nameof(TwinTests.Whatever_is_found_lifted_half_done_or_done_out_of_order_nobody_is_hurt_and_every_job_ends)),

        // Things found.
        ("rotor screw: holds, cracked, will not crack, head rounded", typeof(AtTheCarTests), nameof(AtTheCarTests.A_screw_that_will_not_crack_is_worked_on_one_way_after_the_other_and_a_rounded_head_is_not_turned_any_more)),
        ("rotor screw: broken by us, left out by the lead, the others keep their steps", typeof(AtTheCarTests), nameof(AtTheCarTests.A_broken_screw_is_left_out_by_the_lead_and_no_one_else_and_the_others_keep_their_steps)),
        ("rotor screw: broken on arrival, drilled, new one fitted", typeof(AtTheCarTests), nameof(AtTheCarTests.Anyone_may_drill_a_broken_screw_out_and_one_that_came_broken_is_recorded_as_found)),
        ("rotor stuck: one way after the other; ring and lamp after blows", typeof(AtTheCarTests), nameof(AtTheCarTests.A_stuck_rotor_that_goes_away_is_struck_only_after_oil_and_a_struck_hub_has_its_ring_looked_at_and_its_lamp_asked)),
        ("rotor stuck: no blows on one that stays, heat is not offered", typeof(AtTheCarTests), nameof(AtTheCarTests.A_rotor_that_stays_is_never_struck_and_heat_is_offered_nowhere)),
        ("hub face stepped", typeof(AtTheCarTests), nameof(AtTheCarTests.A_stepped_hub_says_so_where_it_is_cleaned_and_where_the_rotor_goes_on)),
        ("hub face pitted; slide pins of every kind; pad tight; hose, thread, stud, bearing, plate, sensor", typeof(FoundAtTheCarTests), nameof(FoundAtTheCarTests.At_a_corner_it_brings_its_step_and_part_and_the_job_ends)),
        ("sensor: not here, worn through, lead broken; its lamp", typeof(AtTheCarTests), nameof(AtTheCarTests.A_sensor_that_is_not_at_this_corner_has_no_step_and_one_worn_through_is_renewed_on_its_side_with_its_lamp_asked)),
        ("noise or shake on the drive goes back to a corner", typeof(FoundAtTheCarTests), nameof(FoundAtTheCarTests.On_the_car_it_brings_its_step_and_what_it_makes_doubtful_is_proved_again)),
        ("wrong or surplus parts, waiting for parts", typeof(AtTheCarTests), nameof(AtTheCarTests.A_job_that_waits_for_parts_says_on_the_board_for_what_from_where_and_since_when)),
        ("a new caliper brings its bracket; the cable goes through its mount", typeof(AtTheCarTests), nameof(AtTheCarTests.A_new_caliper_that_brings_its_bracket_has_the_old_one_off_and_needs_no_lands_cleaned)),
        ("slot of a new piston turned to the pad's pin before anything covers it", typeof(AtTheCarTests), nameof(AtTheCarTests.A_new_caliper_that_brings_its_bracket_has_the_old_one_off_and_needs_no_lands_cleaned)),
        ("still turns at the bottom, two stages, other way, bolt first, bolts left alone: learnt", typeof(AtTheCarTests), nameof(AtTheCarTests.What_was_learnt_at_a_vehicle_stands_in_its_next_job_with_its_day_and_is_not_asked_twice)),
        ("learnt figures go with the vehicle", typeof(AtTheCarTests), nameof(AtTheCarTests.A_figure_measured_at_a_vehicle_stands_in_its_next_job_with_its_day)),
        ("who decided what", typeof(AtTheCarTests), nameof(AtTheCarTests.The_record_says_who_decided_what_and_why)),
        ("effort felt, no wrench", typeof(AtTheCarTests), nameof(AtTheCarTests.Effort_that_is_felt_two_grades_apart_counts_as_harder_and_one_grade_does_not)),
        ("already wrong when it came", typeof(AtTheCarTests), nameof(AtTheCarTests.What_came_wrong_is_recorded_as_found_and_said_where_it_matters_for_the_torque)),
        ("renewed by choice, with what was left", typeof(AtTheCarTests), nameof(AtTheCarTests.Parts_renewed_by_choice_say_why_and_what_was_left_of_the_old_ones)),
        ("service fails on one side", typeof(AtTheCarTests), nameof(AtTheCarTests.A_motor_that_did_not_go_back_is_driven_back_by_hand_while_the_other_stays_in_service)),
        ("a unit that moves by itself", typeof(AtTheCarTests), nameof(AtTheCarTests.A_brake_that_moved_by_itself_leaves_nobody_sure_of_spindles_and_pistons)),
        ("an actuator that does not close any more", typeof(AtTheCarTests), nameof(AtTheCarTests.An_actuator_that_does_not_move_any_more_is_renewed_before_it_goes_on)),
        ("a caliper that hangs by its hose", typeof(AtTheCarTests), nameof(AtTheCarTests.A_caliper_that_hung_by_its_hose_is_hung_and_its_hose_looked_at_before_anything_else_at_it_and_before_the_pedal)),
        ("tool or battery lost half-way", typeof(AfterASurpriseTests), nameof(AfterASurpriseTests.A_tool_lost_while_closing_leaves_the_brake_unknown)),
        ("what is found at two places of one hub", typeof(FoundAtTheCarTests), nameof(FoundAtTheCarTests.Two_things_at_one_hub_are_two_findings_and_the_step_that_puts_them_right_says_how_for_both)),
        ("asked before lifting: twin wheels, tail-lift, wheel bolts", typeof(AtTheCarTests), nameof(AtTheCarTests.Twin_wheels_and_wheel_bolts_are_asked_before_lifting_and_said_at_the_wheel)),
        ("pipes not sound", typeof(AfterASurpriseTests), nameof(AfterASurpriseTests.Pipes_that_are_not_sound_are_made_sound_before_the_pedal)),
        ("stop signs say what they mean and what may follow", typeof(AtTheCarTests), nameof(AtTheCarTests.A_stop_sign_says_what_it_means_and_with_what_was_done_the_same_caliper_goes_on)),

        // Texts that follow the facts.
        ("drawn-off fluid is thrown away; a wheel freed through wood; a spindle by live data or a press; a brake found applied", typeof(AtTheCarTests), nameof(AtTheCarTests.What_only_a_finding_brings_says_what_a_master_would)),
        ("which pad goes inside, which end leads", typeof(PadTests), nameof(PadTests.The_leading_end_follows_from_where_the_caliper_sits)),
        ("pads drawn in the step for this side, behind the axle or ahead of it", typeof(AtTheCarTests), nameof(AtTheCarTests.Where_the_caliper_sits_is_told_as_taken_until_somebody_has_said_it)),
        ("pins: a caliper that does not pass over is not drawn on", typeof(TwinTests), nameof(TwinTests.Whatever_is_found_lifted_half_done_or_done_out_of_order_nobody_is_hurt_and_every_job_ends)),
        ("lay-out: drives, sizes, jacking thread, locker, numbers; each bolt's word", typeof(AtTheCarTests), nameof(AtTheCarTests.The_words_of_each_bolt_its_locker_its_number_and_its_drive_come_from_the_sheet)),
        ("a figure entered by hand is asked about before it is signed", typeof(TorqueTests), nameof(TorqueTests.An_unusual_figure_is_a_question_with_the_other_reading_offered_and_never_a_refusal)),
        ("figures entered by hand are compared with each other", typeof(AtTheCarTests), nameof(AtTheCarTests.The_same_figure_entered_by_hand_for_pins_and_bracket_is_asked_about)),
        ("hand-tight by name, and never what carries", typeof(AtTheCarTests), nameof(AtTheCarTests.A_rotor_screw_without_a_figure_is_accepted_hand_tight_by_name_and_never_a_fastener_that_carries)),
        ("final level against what was reckoned; a bleeding says which corner", typeof(AtTheCarTests), nameof(AtTheCarTests.The_last_level_stands_beside_what_was_reckoned_and_a_bleeding_says_which_corner)),
        ("under MIN or over MAX is not clicked on", typeof(AfterASurpriseTests), nameof(AfterASurpriseTests.A_level_outside_the_marks_is_not_clicked_on)),
        ("new parts all listed, calipers too", typeof(SurpriseTests), nameof(SurpriseTests.A_stuck_piston_brings_a_caliper_with_its_hose_and_bleeding_and_the_job_ends_handed_over)),
        ("self-pressurising wherever it was not ruled out", typeof(AtTheCarTests), nameof(AtTheCarTests.Brakes_that_may_press_themselves_are_disabled_before_the_first_caliper_unless_they_were_ruled_out)),
    ];

    // What a text has to say: the fact that the walk over all texts reads each of them against.
    private static readonly (string Line, string Fact)[] Texts =
    [
        ("a piston that turns is turned", "a piston that turns is turned, in its own direction"),
        ("a piston that is pushed is pushed", "a piston that is pushed is never turned"),
        ("a screw piston never reads push it in", "nothing of a screw piston reads push it in"),
        ("pump up: the house rule's stroke, engine off", "strokes are the house's"),
        ("later, engine on: one slow press, the first small drop is the servo", "the engine is on only later, and the first small drop is the servo"),
        ("retract: with the open-screw school, open before and close after", "the bleed screw opens with each push only in that school"),
        ("slot only where the pad has a pin", "the slot is asked for only where the pad has a pin"),
        ("pads slide by hand, the spring pressed down", "pads slide by hand, the spring pressed down as the first one starts"),
        ("paste or film on pad backs where it is called for, never on linings", "paste or film on backs where it is called for, never on a lining"),
        ("old clips kept: condition and direction", "old clips that stay are whole and the right way round"),
        ("wear sensor at its own corner", "the wear sensor is spoken of at its own corner only"),
        ("pins: held only where they turn, with a thin spanner", "a pin is held only where it turns"),
        ("pins: both started by hand; a caliper that does not pass over is not drawn on", "both bolts are started by hand, and a caliper that does not pass over is not drawn on"),
        ("grease at the pins", "grease for the pins is laid out"),
        ("grease: never copper or mineral near rubber", "pins get rubber-safe grease, and never copper"),
        ("grease at the ears, or dry", "grease on pad ears by the house rule"),
        ("film at the lands, or bare", "film under the clips by the house rule"),
        ("grease at the boot's lip", "the boot's lip by the house rule"),
        ("hub and wheel pilot: smear or nothing", "pilots by the house rule"),
        ("studs: dry, or the rule", "wheel threads by the house rule"),
        ("new rotor: oil film off, a coated one keeps its coating off the track", "oil film off a new rotor; a coating stays on all but the braking track"),
        ("film inside the hat where shoes run", "the drum is degreased where shoes run in it"),
        ("shoes by count, or by clicks", "shoes by count say the count, by clearance the bench's clicks"),
        ("the hole at its clock position", "the hole stands where the sheet says"),
        ("light even pad noise at the first spin is normal", "a light even hiss at the first turn is normal"),
        ("a motor's lead and a cable carry no weight", "a motor's lead and a cable carry no weight"),
        ("the hose clamped only in that school", "the hose is clamped only where the house clamps"),
        ("hand-over: one bed-in school, said once", "one bed-in school, the house's"),
        ("hand-over: brakes bite less until bedded, noise that is normal", "new pads bite less until bedded, and a light hiss is normal; of old ones nobody says so"),
        ("hand-over: a soft pedal comes back", "a soft pedal comes back"),
        ("hand-over: wheel nuts again only if the rule says", "wheel nuts again only where the house asks for it"),
        ("30 s prove nothing on a simulated pedal", "a simulated pedal proves nothing by feel"),
        ("stands at the maker's points", "stands under the maker's points"),
        ("volts at rest before the charger", "volts at rest before the charger"),
        ("locking nuts by hand", "a locking nut by hand, with its key"),
        ("bleeding: which corner", "a corner is bled alone, or with the other, as it is"),
    ];

    [Fact]
    public void Every_line_names_a_test_that_is_run()
    {
        (Lines.Length + Texts.Length).ShouldBeGreaterThan(87);
        foreach (var (line, type, shown) in Lines)
        {
            var method = type.GetMethod(shown).ShouldNotBeNull(line);
            (method.GetCustomAttribute<FactAttribute>() ?? throw new InvalidOperationException($"{shown} is no test")).Skip.ShouldBeNull(line);
        }

        foreach (var (line, fact) in Texts) TextWalkTests.FactNames.ShouldContain(fact, line);
        Lines.Select(l => l.Line).Concat(Texts.Select(t => t.Line)).ShouldBeUnique();
    }
}
