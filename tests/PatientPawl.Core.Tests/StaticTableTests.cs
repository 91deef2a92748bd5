using System.Reflection;
using System.Runtime.CompilerServices;
using System.Runtime.Loader;

namespace PatientPawl.Core.Tests;

/// <summary>A table that needs another one to be there first works until somebody asks in another order.</summary>
public class StaticTableTests
{
    public static TheoryData<string> Tables() =>
        [.. typeof(Checks).Assembly.GetTypes().Where(t => t.TypeInitializer is not null && !t.ContainsGenericParameters && !t.Name.StartsWith('<')).Select(t => t.FullName!)];

    [Theory]
    [MemberData(nameof(Tables))]
    public void Every_static_table_can_be_the_first_that_is_asked(string table)
    {
        // An assembly loaded anew has not initialised anything yet.
        var context = new AssemblyLoadContext(table, isCollectible: true);
        try
        {
            var type = context.LoadFromAssemblyPath(typeof(Checks).Assembly.Location).GetType(table)!;
            RuntimeHelpers.RunClassConstructor(type.TypeHandle);
            foreach (var field in type.GetFields(BindingFlags.Static | BindingFlags.Public | BindingFlags.NonPublic).Where(f => f.FieldType.IsClass)) field.GetValue(null).ShouldNotBeNull(field.Name);
        }
        finally
        {
            context.Unload();
        }
    }
}
