using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using PatientPawl.Data;

namespace PatientPawl.Web.Hosting;

/// <summary>The OpenAPI document, from which the front end's types are generated.</summary>
internal static class ApiDocument
{
    public static void Configure(OpenApiOptions options)
    {
        options.AddDocumentTransformer((document, _, _) =>
        {
            document.Info = new() { Title = "Patient Pawl", Version = "1", Description = "Units stand in the names: thicknessMm, settingNm, displacedMl. Problem details follow RFC 9457.", Contact = new() { Name = "The lead of the workshop that serves it" } };
            // Whatever address it was asked at: the document is the same.
            document.Servers = [new() { Url = "/" }];
            // An enumeration is written once, by whichever field comes first: where that one may be null, the others may not. Each says it for itself.
            foreach (var words in (document.Components?.Schemas?.Values ?? []).OfType<OpenApiSchema>().Where(s => s.Enum is { Count: > 0 }))
                words.Enum = [.. words.Enum!.Where(w => w is not null && w.GetValueKind() != System.Text.Json.JsonValueKind.Null)];
            return Task.CompletedTask;
        });
        options.AddOperationTransformer((operation, context, _) =>
        {
            var at = context.Description;
            ApiWords.Write(operation, at.HttpMethod!, at.RelativePath!, [.. at.ActionDescriptor.EndpointMetadata]);
            return Task.CompletedTask;
        });
        options.AddSchemaTransformer((schema, context, _) =>
        {
            // Quantities have their own converter, so the exporter cannot see that they are plain numbers.
            if (PawlJson.IsQuantity(context.JsonTypeInfo.Type))
            {
                var nullable = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) is not null;
                schema.Type = nullable ? JsonSchemaType.Number | JsonSchemaType.Null : JsonSchemaType.Number;
            }

            if (context.JsonTypeInfo.ElementType is { } element && PawlJson.IsQuantity(element)) schema.Items = new OpenApiSchema { Type = JsonSchemaType.Number };
            return Task.CompletedTask;
        });
    }
}
