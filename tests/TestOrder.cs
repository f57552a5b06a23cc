using System.Security.Cryptography;
using System.Text;
using Xunit.Sdk;
using Xunit.v3;

[assembly: TestCaseOrderer(typeof(Formatum.Testing.TestOrder))]
[assembly: TestCollectionOrderer(typeof(Formatum.Testing.TestOrder))]

namespace Formatum.Testing;

/// <summary>
/// Runs tests in the order of their names, the same wherever the project lies: the order that comes along follows the folder's name, so that a test that
/// leans on another fails in one checkout only. FORMATUM_TEST_ORDER, a word, gives another order for each word, to find such tests.
/// </summary>
public sealed class TestOrder : ITestCaseOrderer, ITestCollectionOrderer
{
    private static readonly string? Shuffle = Environment.GetEnvironmentVariable("FORMATUM_TEST_ORDER");

    public IReadOnlyCollection<T> OrderTestCases<T>(IReadOnlyCollection<T> testCases) where T : notnull, ITestCase =>
        [.. testCases.OrderBy(c => Key(c.TestCaseDisplayName), StringComparer.Ordinal)];

    public IReadOnlyCollection<T> OrderTestCollections<T>(IReadOnlyCollection<T> testCollections) where T : ITestCollection =>
        [.. testCollections.OrderBy(c => Key(c.TestCollectionDisplayName), StringComparer.Ordinal)];

    private static string Key(string name) => Shuffle is null ? name : Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(Shuffle + name)));
}
