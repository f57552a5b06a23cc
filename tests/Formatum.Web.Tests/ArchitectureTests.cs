using System.Xml.Linq;

namespace Formatum.Web.Tests;

public class ArchitectureTests
{
    private static readonly Dictionary<string, string[]> Allowed = new()
    {
        ["Formatum.Core"] = [],
        ["Formatum.Imaging"] = ["Formatum.Core"],
        ["Formatum.Output"] = ["Formatum.Imaging"],
        ["Formatum.Storage"] = ["Formatum.Core"],
        ["Formatum.Demo"] = ["Formatum.Storage", "Formatum.Imaging"],
        ["Formatum.Web"] = ["Formatum.Storage", "Formatum.Output", "Formatum.Demo"],
    };

    [Fact]
    public void Dependencies_run_one_way_and_the_core_has_no_packages()
    {
        var projects = Directory.GetFiles(Path.Combine(TestServer.Root, "src"), "*.csproj", SearchOption.AllDirectories);
        projects.Select(p => Path.GetFileNameWithoutExtension(p)!).Order().ShouldBe(Allowed.Keys.Order());
        foreach (string project in projects)
        {
            var document = XDocument.Load(project);
            var references = document.Descendants("ProjectReference").Select(r => Path.GetFileNameWithoutExtension((string)r.Attribute("Include")!));
            references.ShouldBe(Allowed[Path.GetFileNameWithoutExtension(project)], ignoreOrder: true, project);
        }
        XDocument.Load(projects.Single(p => p.EndsWith("Formatum.Core.csproj", StringComparison.Ordinal))).Descendants("PackageReference").ShouldBeEmpty();
        var core = typeof(Core.Publications.Publication).Assembly.GetReferencedAssemblies().Select(a => a.Name!).ToList();
        core.ShouldAllBe(name => name.StartsWith("System.", StringComparison.Ordinal));
        core.ShouldNotContain("System.Net.Http");
    }
}
