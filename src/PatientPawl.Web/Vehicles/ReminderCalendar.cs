using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using PatientPawl.Core.Fleet;

namespace PatientPawl.Web.Vehicles;

/// <summary>Reminders as iCalendar (RFC 5545): a day each, by the id they are ticked off by, so that a calendar which reads them again keeps one.</summary>
internal static class ReminderCalendar
{
    public static string Write(IEnumerable<Reminder> reminders, DateTimeOffset now)
    {
        var calendar = new Calendar { ProductId = "-//Patient Pawl//Reminders//EN" };
        calendar.AddProperty("X-WR-CALNAME", "Brakes: what comes due");
        foreach (var reminder in reminders)
        {
            calendar.Events.Add(new CalendarEvent
            {
                Uid = $"{reminder.Id}@patient-pawl",
                DtStamp = new CalDateTime(now.UtcDateTime, "UTC"),
                Start = new CalDateTime(reminder.Due),
                End = new CalDateTime(reminder.Due.AddDays(1)),
                Summary = $"{reminder.About}: {Word(reminder.Kind)}",
                Description = reminder.Says,
            });
        }

        return new CalendarSerializer().SerializeToString(calendar) ?? "";
    }

    private static string Word(ReminderKind kind) => kind switch
    {
        ReminderKind.WheelNuts => "wheel nuts again",
        ReminderKind.Pads => "pads looked at",
        ReminderKind.Calibration => "calibration",
        ReminderKind.Fluid => "brake fluid",
        ReminderKind.WearLamp => "wear lamp",
        ReminderKind.SingleUseParts => "parts to order",
        _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, "No such reminder."),
    };
}
