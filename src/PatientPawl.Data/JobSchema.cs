using System.Text.Json.Nodes;

namespace PatientPawl.Data;

/// <summary>The JSON Schema of the job file, made from the very types that are stored.</summary>
public static class JobSchema
{
    public static JsonObject Make()
    {
        var schema = PublishedSchema.Of(typeof(Shape), $"Patient Pawl job file, version {EventStore.FormatVersion}");
        var properties = schema["properties"]!.AsObject();
        properties["format"] = new JsonObject { ["const"] = JobFiles.Format };
        properties["formatVersion"] = new JsonObject { ["type"] = "integer", ["minimum"] = EventStore.OldestFormat, ["maximum"] = EventStore.FormatVersion };
        properties["events"]!.AsObject()["minItems"] = 1;
        properties["events"]!["items"]!["properties"]!.AsObject()["hash"] = new JsonObject { ["type"] = "string", ["pattern"] = "^[0-9a-f]{64}$" };
        return schema;
    }

    private sealed record Shape(string Format, int FormatVersion, Guid JobId, IReadOnlyList<ShapeEvent> Events, IReadOnlyList<Attachment>? Attachments = null);

    private sealed record ShapeEvent(StoredEvent Content, string Hash);
}
